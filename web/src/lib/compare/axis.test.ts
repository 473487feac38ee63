import { expect, test } from 'vitest';
import { axisTop, axisX } from './axis';

test('sizes that double stand evenly, others by their distance', () => {
  expect(axisX([8, 16, 32, 64])).toEqual([0, 1 / 3, 2 / 3, 1].map((at) => expect.closeTo(at, 9)));
  expect(axisX([2, 3, 6])).toEqual([0, 0.25, 1]);
  expect(axisX([0, 100])).toEqual([0, 1]);
  expect(axisX([5, 5])).toEqual([0.5, 0.5]);
});

test('the scale ends at everything, and further up only without a clock', () => {
  expect(axisTop([0.2, 1])).toBe(1);
  expect(axisTop([])).toBe(1);
  expect(axisTop([0.4, 2.3])).toBe(2.5);
});
