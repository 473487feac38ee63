/** The comb: a tooth a slot, or a bin of slots when there are more slots than room. Letters: o the own frame on time, l late, v an
 * overdue frame, d no new picture. */

export type Bin = { from: number; count: number; onTime: number; late: number; overdue: number; none: number };

export type Freeze = { from: number; count: number };

/** Groups slots into at most `room` bins of equal length, the last one shorter. Every slot is in exactly one. */
export function bins(teeth: string, room: number): Bin[] {
  const size = Math.max(1, Math.ceil(teeth.length / Math.max(1, room)));
  const result: Bin[] = [];
  for (let from = 0; from < teeth.length; from += size) {
    const part = teeth.slice(from, from + size);
    const count = (letter: string) => part.split(letter).length - 1;
    result.push({ from, count: part.length, onTime: count('o'), late: count('l'), overdue: count('v'), none: count('d') });
  }
  return result;
}

/** Stretches of slots without a new picture, at least `shortest` long. */
export function freezes(teeth: string, shortest: number): Freeze[] {
  return [...teeth.matchAll(/d+/g)]
    .map((match) => ({ from: match.index, count: match[0].length }))
    .filter((freeze) => freeze.count >= shortest);
}

/** The same in words, for those who cannot see it. */
export function inWords(teeth: string): string {
  const count = (letter: string) => teeth.split(letter).length - 1;
  const longest = Math.max(0, ...freezes(teeth, 1).map((freeze) => freeze.count));
  const tail = longest > 1 ? `; at most ${longest} of these in a row` : '';
  const overdue = count('v') ? `${count('v')} with an overdue frame, ` : '';
  return `${teeth.length} slots: ${count('o')} on time, ${count('l')} late, ${overdue}${count('d')} without a new picture${tail}`;
}
