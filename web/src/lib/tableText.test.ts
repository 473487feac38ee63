import { describe, expect, it } from 'vitest';
import { tableText } from './tableText';

describe('a table as text', () => {
  it('quotes fields and doubles the quotes in them', () => {
    expect(tableText([['a', 'b, c', 'd "e"', 4]], ',')).toBe('a,"b, c","d ""e""",4\r\n');
  });

  it.each(['=1+1', '+SUM(A1)', '-cmd', '@SUM', "'x"])('does not let a spreadsheet carry out %s', (text) => {
    expect(tableText([[text]], '\t')).toBe(`'${text}\r\n`);
  });

  it('leaves numbers as they are', () => {
    expect(tableText([[-3, '-2.5', '+4']], ',')).toBe('-3,-2.5,+4\r\n');
  });
});
