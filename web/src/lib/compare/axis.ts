/**
 * Where values stand along an axis, 0 to 1: by their size, on a scale that doubles evenly where the largest is eight times the smallest or more, as
 * sizes of memory do.
 */
export function axisX(values: number[]): number[] {
  const [least, most] = [Math.min(...values), Math.max(...values)];
  if (most === least) return values.map(() => 0.5);
  const place = least > 0 && most >= 8 * least ? Math.log : (value: number) => value;
  return values.map((value) => (place(value) - place(least)) / (place(most) - place(least)));
}

/** The top of the scale for shares: everything where no frame can be shown twice, more where it was played without a clock. */
export const axisTop = (shares: number[]) => {
  const most = Math.max(0, ...shares);
  return most <= 1.02 ? 1 : Math.ceil(most * 2) / 2;
};
