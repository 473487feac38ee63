import type { RunLine } from '../api/client';
import { tableText } from '../tableText';
import { endings, fixed, moment } from '../words';

/** The runs list: what stands in its columns, what a filter finds, how it is grouped and written out. */

export type Grouping = 'none' | 'conditions' | 'trial';

export type Group = { key: string; title: string | null; trialId: number | null; runs: RunLine[] };

const count = (run: RunLine, verdict: string) => run.verdicts.filter((one) => one === verdict).length;

/** What differs from a bare run besides the scale, which stands in a column of its own. */
const conditions = (run: RunLine) =>
  [run.differences.filter((one) => one !== `${run.scale} scale`).join(', ') || 'bare', ...(run.byHand ? ['by hand'] : [])].join(', ');

/** Columns by name; figures are numbers. */
export const columns: Record<string, (run: RunLine) => string | number> = {
  run: (run) => run.id,
  started: (run) => moment(run.startedAt),
  timeline: (run) => run.timelineTitle,
  machine: (run) => run.machineName,
  scale: (run) => run.scale ?? '',
  conditions,
  ending: (run) => endings[run.ending ?? 'playing'] + (run.notCounting ? ', does not count' : ''),
  holds: (run) => count(run, 'holds'),
  wavers: (run) => count(run, 'wavers'),
  breaks: (run) => count(run, 'breaks'),
  'shown %': (run) => (run.slots ? fixed((100 * run.shown) / run.slots) : ''),
  slots: (run) => run.slots,
  marks: (run) => run.marks || ''
};

/** Columns that the list can be put in order by, as the server calls them. */
export const orders: Record<string, string> = {
  run: 'number',
  started: 'number',
  timeline: 'timeline',
  machine: 'machine',
  scale: 'scale',
  ending: 'ending',
  holds: 'holds',
  wavers: 'wavers',
  breaks: 'breaks',
  'shown %': 'shown',
  slots: 'slots'
};

/** Groups in the order of their newest run. */
export function grouped(runs: RunLine[], by: Grouping): Group[] {
  if (by === 'none') return [{ key: '', title: null, trialId: null, runs }];
  const key = (run: RunLine) => (by === 'trial' ? `${run.trialId ?? ''}` : run.conditionsDigest);
  const byKey = new Map<string, RunLine[]>();
  for (const run of runs) {
    const group = byKey.get(key(run));
    if (group) group.push(run);
    else byKey.set(key(run), [run]);
  }
  const titles = new Map<string, RunLine>();
  return [...byKey].map(([key, runs]) => {
    const [first] = runs;
    const what = `${first.timelineTitle} on ${first.machineName}, ${first.scale} scale, ${conditions(first)}`;
    const newer = titles.get(what);
    titles.set(what, newer ?? first);
    const title = by === 'conditions' ? what + difference(first, newer) : first.trialId ? `Trial ${first.trialId}: ${what}` : 'Outside any trial';
    return { key, title, trialId: by === 'trial' ? first.trialId : null, runs };
  });
}

/** What sets a group apart from a newer one that would have the same head. */
function difference(run: RunLine, newer: RunLine | undefined): string {
  if (!newer) return '';
  return run.timelineDigest === newer.timelineDigest ? ', with other clips or another version of the player' : ', the timeline as it was before an edit';
}

/** As a table with a heading; `mark` stands between the columns. Moments are written by ISO 8601. */
export const written = (runs: RunLine[], mark: ',' | '\t'): string =>
  tableText([Object.keys(columns), ...runs.map((run) => Object.entries(columns).map(([name, value]) => (name === 'started' ? run.startedAt : value(run))))], mark);
