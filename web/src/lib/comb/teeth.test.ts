import { describe, expect, it } from 'vitest';
import { bins, freezes, inWords } from './teeth';

describe('the comb', () => {
  it('gives every slot a tooth of its own while there is room', () => {
    expect(bins('oldv', 10).map((bin) => [bin.onTime, bin.late, bin.none, bin.overdue])).toEqual([
      [1, 0, 0, 0],
      [0, 1, 0, 0],
      [0, 0, 1, 0],
      [0, 0, 0, 1]
    ]);
  });

  it('loses no slot when it has to group them', () => {
    const teeth = 'ood'.repeat(333) + 'l';
    const grouped = bins(teeth, 120);
    expect(grouped.length).toBeLessThanOrEqual(120);
    expect(grouped.reduce((sum, bin) => sum + bin.onTime + bin.late + bin.none, 0)).toBe(1000);
    expect(grouped.reduce((sum, bin) => sum + bin.none, 0)).toBe(333);
  });

  it('finds freezes and leaves single drops alone', () => {
    expect(freezes('oodoodddo', 3)).toEqual([{ from: 5, count: 3 }]);
    expect(freezes('oddvddd', 3)).toEqual([{ from: 4, count: 3 }]);
  });

  it('has words for those who cannot see it', () => {
    expect(inWords('oolddo')).toBe('6 slots: 3 on time, 1 late, 2 without a new picture; at most 2 of these in a row');
    expect(inWords('ovd')).toBe('3 slots: 1 on time, 0 late, 1 with an overdue frame, 1 without a new picture');
    expect(inWords('')).toBe('0 slots: 0 on time, 0 late, 0 without a new picture');
  });
});
