import type { Schemas } from '../api/client';

/** Loads of one part over a passage, as a line. */
export type LoadLine = { name: string; unit: string; limit: number | null; at: number[]; values: number[] };

/** Parts that any of several sides has readings of, in the order of the first that has them. */
export const groupsOf = (sides: Schemas['LoadSeries'][][]) => [...new Set(sides.flatMap((loads) => loads.filter((one) => one.values.some((value) => value > 0)).map((one) => one.group)))];

/** A part's readings as one line: the mean of its cores, or the highest of its units at every moment. */
export function lineOf(loads: Schemas['LoadSeries'][], group: string): LoadLine | null {
  const series = loads.filter((one) => one.group === group);
  if (!series.length) return null;
  const cores = group === 'Processor';
  const moments = new Map<number, number[]>();
  for (const one of series) one.at.forEach((ms, i) => moments.set(ms, [...(moments.get(ms) ?? []), one.values[i]]));
  const at = [...moments.keys()].sort((one, other) => one - other);
  const values = at.map((ms) => {
    const all = moments.get(ms)!;
    return cores ? all.reduce((sum, value) => sum + value, 0) / all.length : Math.max(...all);
  });
  const name = series.length === 1 ? series[0].name : cores ? `mean of ${series.length} cores` : `highest of ${series.length}`;
  return { name, unit: series[0].unit, limit: series[0].limit, at, values };
}

/** The reading that was taken of a moment: readings stand for the time before them. Null after the last. */
export function valueAt(line: LoadLine, ms: number): number | null {
  const place = line.at.findIndex((at) => at >= ms);
  return place < 0 ? null : line.values[place];
}
