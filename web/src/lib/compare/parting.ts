/** Places at which runs part: the next slot, from one on, at which not all sides fared alike. */
export function nextParting(teeth: string[], from: number, step: 1 | -1): number | null {
  const longest = Math.max(0, ...teeth.map((one) => one.length));
  for (let at = from + step; at >= 0 && at < longest; at += step) {
    if (parts(teeth, at) && !(at - step >= 0 && at - step !== from && parts(teeth, at - step))) return at;
  }
  return null;
}

/** Whether the sides fared differently in a slot; one that did not reach it parts too. */
export const parts = (teeth: string[], at: number): boolean => new Set(teeth.map((one) => one[at] ?? '')).size > 1;

const fates: Record<string, string> = { o: 'on time', l: 'late', v: 'an overdue frame', d: 'no new picture' };

export const fate = (tooth: string | undefined) => (tooth ? fates[tooth] : 'not reached');
