import { expect, test } from 'vitest';
import { fate, nextParting, parts } from './parting';

const teeth = ['ooooddoo', 'oooooooo'];

test('the next place is where they begin to part, not every slot of it', () => {
  expect(nextParting(teeth, 0, 1)).toBe(4);
  expect(nextParting(['odod', 'oooo'], 0, 1)).toBe(1);
  expect(nextParting(['odod', 'oooo'], 1, 1)).toBe(3);
  expect(nextParting(teeth, 5, 1)).toBeNull();
});

test('backwards too', () => {
  expect(nextParting(['odod', 'oooo'], 3, -1)).toBe(1);
  expect(nextParting(teeth, 3, -1)).toBeNull();
});

test('a side that ended earlier parts where it ends', () => {
  expect(parts(['oo', 'ooo'], 2)).toBe(true);
  expect(nextParting(['oo', 'oooo'], 0, 1)).toBe(2);
  expect(fate(undefined)).toBe('not reached');
});

test('alike runs never part', () => expect(nextParting(['oodo', 'oodo'], 0, 1)).toBeNull());
