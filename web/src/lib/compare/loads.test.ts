import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { groupsOf, lineOf, valueAt } from './loads';

const series = (group: string, name: string, values: number[], at = values.map((_, i) => (i + 1) * 100)): Schemas['LoadSeries'] => ({ group, name, unit: '%', limit: 100, at, values });

describe('loads in step', () => {
  const loads = [series('Processor', 'core 0', [100, 50]), series('Processor', 'core 1', [0, 50]), series('Drives', 'read 0', [0, 0]), series('Graphics', 'unit 0', [10, 20]), series('Graphics', 'unit 1', [30, 5])];

  it('offers what any side has done anything with', () => {
    expect(groupsOf([loads, [series('Bus', 'bus', [3])]])).toEqual(['Processor', 'Graphics', 'Bus']);
  });

  it('takes the mean of cores and the highest of units', () => {
    expect(lineOf(loads, 'Processor')).toMatchObject({ name: 'mean of 2 cores', values: [50, 50] });
    expect(lineOf(loads, 'Graphics')).toMatchObject({ name: 'highest of 2', values: [30, 20] });
    expect(lineOf(loads, 'Bus')).toBeNull();
  });

  it('puts readings of different moments in order', () => {
    expect(lineOf([series('Heat', 'one', [1, 2], [100, 300]), series('Heat', 'two', [9], [200])], 'Heat')).toMatchObject({ at: [100, 200, 300], values: [1, 9, 2] });
  });

  it('reads the time before a moment off it', () => {
    const line = lineOf(loads, 'Graphics')!;
    expect([valueAt(line, 0), valueAt(line, 100), valueAt(line, 101), valueAt(line, 201)]).toEqual([30, 30, 20, null]);
  });
});
