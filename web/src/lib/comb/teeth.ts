/** The comb: a tooth a frame, or a bin of frames when there are more frames than room. */

export type Bin = { from: number; count: number; onTime: number; late: number; dropped: number };

export type Freeze = { from: number; count: number };

/** Groups frames into at most `room` bins of equal length, the last one shorter. Every frame is in exactly one. */
export function bins(teeth: string, room: number): Bin[] {
  const size = Math.max(1, Math.ceil(teeth.length / Math.max(1, room)));
  const result: Bin[] = [];
  for (let from = 0; from < teeth.length; from += size) {
    const part = teeth.slice(from, from + size);
    const count = (letter: string) => part.split(letter).length - 1;
    result.push({ from, count: part.length, onTime: count('o'), late: count('l'), dropped: count('d') });
  }
  return result;
}

/** Stretches of frames that were dropped one after another, at least `shortest` long. */
export function freezes(teeth: string, shortest: number): Freeze[] {
  return [...teeth.matchAll(/d+/g)]
    .map((match) => ({ from: match.index, count: match[0].length }))
    .filter((freeze) => freeze.count >= shortest);
}

/** The same in words, for those who cannot see it. */
export function inWords(teeth: string): string {
  const count = (letter: string) => teeth.split(letter).length - 1;
  const longest = Math.max(0, ...freezes(teeth, 1).map((freeze) => freeze.count));
  const tail = longest > 1 ? `; at most ${longest} dropped in a row` : '';
  return `${teeth.length} frames: ${count('o')} on time, ${count('l')} late, ${count('d')} dropped${tail}`;
}
