import { describe, expect, it } from 'vitest';
import { bins, freezes, inWords } from './teeth';

describe('the comb', () => {
  it('gives every frame a tooth of its own while there is room', () => {
    expect(bins('old', 10).map((bin) => [bin.onTime, bin.late, bin.dropped])).toEqual([
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1]
    ]);
  });

  it('loses no frame when it has to group them', () => {
    const teeth = 'ood'.repeat(333) + 'l';
    const grouped = bins(teeth, 120);
    expect(grouped.length).toBeLessThanOrEqual(120);
    expect(grouped.reduce((sum, bin) => sum + bin.onTime + bin.late + bin.dropped, 0)).toBe(1000);
    expect(grouped.reduce((sum, bin) => sum + bin.dropped, 0)).toBe(333);
  });

  it('finds freezes and leaves single drops alone', () => {
    expect(freezes('oodoodddo', 3)).toEqual([{ from: 5, count: 3 }]);
  });

  it('has words for those who cannot see it', () => {
    expect(inWords('oolddo')).toBe('6 frames: 3 on time, 1 late, 2 dropped; at most 2 dropped in a row');
    expect(inWords('')).toBe('0 frames: 0 on time, 0 late, 0 dropped');
  });
});
