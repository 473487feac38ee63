import { expect, test } from 'vitest';
import { same } from './same';

test('the order of members and empty members do not count', () => {
  expect(same({ a: 1, b: { c: null, d: [1, 2] } }, { b: { d: [1, 2] }, a: 1 })).toBe(true);
});

test('a value and the order of a list count', () => {
  expect(same({ a: 1 }, { a: 2 })).toBe(false);
  expect(same({ a: [1, 2] }, { a: [2, 1] })).toBe(false);
  expect(same({ a: 0 }, { a: null })).toBe(false);
});
