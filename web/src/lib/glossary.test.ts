import { expect, test } from 'vitest';
import { glossary } from './glossary';

test('the glossary of the documents is that of the pages; npx vitest run -u writes it', async () => {
  const rows = glossary.map(([word, meaning]) => `| ${word} | ${meaning} |`);
  const text = ['# Glossary', '', 'Generated from `web/src/lib/glossary.ts`, which the *Glossary* page shows.', '', '| term | meaning |', '|---|---|', ...rows, ''];

  await expect(text.join('\n')).toMatchFileSnapshot('../../../docs/glossary.md');
});
