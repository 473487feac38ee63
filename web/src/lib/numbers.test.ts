import { describe, expect, it } from 'vitest';
import { numberOf } from './numbers';

describe('a number that somebody types', () => {
  it.each([
    ['12', 12],
    [' 0,5 ', 0.5],
    ['0', 0]
  ])('%s is taken', (text, value) => expect(numberOf(text, { min: 0, max: 100 })).toEqual({ value, problem: null }));

  it.each([
    ['', 'A number is wanted.'],
    ['fast', '“fast” is no number.'],
    ['-1', 'From 0 to 100.'],
    ['101', 'From 0 to 100.'],
    ['Infinity', '“Infinity” is no number.'],
    ['1e400', '“1e400” is no number.']
  ])('%s is none, and the reason is given', (text, problem) => expect(numberOf(text, { min: 0, max: 100 })).toEqual({ value: null, problem }));

  it('can have to be whole, and need not have an upper limit', () => {
    expect(numberOf('1.5', { min: 0, whole: true }).problem).toBe('A whole number is wanted.');
    expect(numberOf('-1', { min: 0, whole: true }).problem).toBe('At least 0.');
    expect(numberOf('1e9', { min: 0, whole: true }).value).toBe(1e9);
  });
});
