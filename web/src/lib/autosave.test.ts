import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Refused } from './api/client';
import { AutoSave } from './autosave.svelte';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Something to save to: what it was sent, and what it answers with next. */
function shelf() {
  const sent: string[] = [];
  let saved = 'first';
  let failure: Error | null = null;
  const saving = new AutoSave<string>(async (id, draft) => {
    if (failure) throw failure;
    const before = saved;
    sent.push(`${id}: ${(saved = draft)}`);
    return before;
  });
  return { saving, sent, fail: (why: Error | null) => (failure = why) };
}

test('only the last of quick changes is sent', async () => {
  const { saving, sent } = shelf();
  saving.touch('a', '1');
  saving.touch('a', '12');
  expect(saving.state).toBe('changed');
  await vi.runAllTimersAsync();
  expect(sent).toEqual(['a: 12']);
  expect(saving.state).toBe('saved');
});

test('what is pending is sent at once when another thing is changed', async () => {
  const { saving, sent } = shelf();
  saving.touch('a', '1');
  saving.touch('b', '2');
  await vi.runAllTimersAsync();
  expect(sent).toEqual(['a: 1', 'b: 2']);
});

test('where the server cannot be reached the change stays and is sent again', async () => {
  const { saving, sent, fail } = shelf();
  fail(new TypeError('fetch failed'));
  saving.touch('a', '1');
  await saving.now();
  expect([saving.state, saving.problem]).toEqual(['offline', 'fetch failed']);
  fail(null);
  await vi.runAllTimersAsync();
  expect(sent).toEqual(['a: 1']);
  expect([saving.state, saving.problem]).toEqual(['saved', null]);
});

test('a conflict and a refusal are reported and not sent again', async () => {
  for (const [status, state] of [[409, 'conflict'], [400, 'refused']] as const) {
    const { saving, sent, fail } = shelf();
    fail(new Refused('why', status));
    saving.touch('a', '1');
    await saving.now();
    fail(null);
    await vi.runAllTimersAsync();
    expect([saving.state, saving.problem, sent.length]).toEqual([state, 'why', 0]);
  }
});

test('undo goes back step by step and not to and fro', async () => {
  const { saving } = shelf();
  for (const draft of ['second', 'third']) {
    saving.touch('a', draft);
    await saving.now();
  }
  for (const expected of ['second', 'first']) {
    const before = saving.back('a')!;
    expect(before).toBe(expected);
    saving.touch('a', before);
    await saving.now();
  }
  expect(saving.canUndo('a')).toBe(false);
});
