import type { Kind, MarkKind, Play, Schemas, Scale, Verdict } from './api/client';

type Limiter = NonNullable<Schemas['Limiter']>;
type Reason = NonNullable<Schemas['DropReason']>;

/** Words and figures as the page writes them. */

const limiters: Record<Limiter, string> = {
  memory: 'memory',
  mediaEngine: 'media engine',
  graphicsEffects: 'effects, graphics',
  processorDecode: 'decode, processor',
  processorEffects: 'effects, processor',
  singleThread: 'single thread',
  drive: 'drive',
  heat: 'heat',
  power: 'power limit',
  graphicsMemory: 'graphics memory',
  bus: 'bus',
  otherPrograms: 'other programs',
  unknown: 'not clear',
  clip: 'clip',
  processorEncode: 'encode, processor',
  encodingEngine: 'encode, media engine'
};

export const limiterWord = (limiter: Limiter | null) => (limiter ? limiters[limiter] : '');

export const statusWord: Record<Schemas['FrameStatus'], string> = { onTime: 'on time', late: 'late', overdue: 'overdue', dropped: 'dropped' };

export const reasonWord: Record<Reason, string> = {
  none: '',
  decodeSkipped: 'given up, decoding started afresh',
  passedOver: 'passed over, was not expected to be ready',
  effectsSkipped: 'decoded too late for its effects',
  notReady: 'not ready before a newer frame or the cut',
  presenterLate: 'displayed late (caused by the player)',
  passageFailed: 'the passage failed'
};

export const scales: Scale[] = ['full', 'half', 'quarter', 'eighth'];

export const verdictWord = (verdict: Verdict | null) => verdict ?? 'no verdict';

export const fixed = (value: number, digits = 1) => value.toFixed(digits);

export const money = (price: number | null, currency: string) =>
  price === null ? 'no price' : `${price.toLocaleString('en-GB')} ${currency}`;

export function ago(date: string, now = Date.now()): string {
  const minutes = Math.round((now - new Date(date).getTime()) / 60000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  return minutes < 48 * 60 ? `${Math.round(minutes / 60)} h ago` : `${Math.round(minutes / 1440)} days ago`;
}

/** A date with its time, as lists show it. */
export const moment = (date: string) => new Date(date).toLocaleString('en-GB');

/** A number that a kind of trial takes, under the name that the server has for it. */
export type TrialNumber = { name: string; label: string; usual: number; most: number };

const times = (label: string): TrialNumber => ({ name: 'times', label, usual: 3, most: 50 });

/** The kinds of trial: what each asks, and the number it takes. A new kind needs no other line on the page. */
export const kinds: Record<Kind, { name: string; question: string; number?: TrialNumber }> = {
  play: { name: 'play through', question: 'Does it play in real time?' },
  capacity: { name: 'capacity', question: 'How many frames a second does it get through?', number: times('runs') },
  export: { name: 'export', question: 'How long does an export take?', number: { ...times('times each'), most: 10 } },
  repeat: { name: 'repeat', question: 'Is the result repeatable?', number: times('runs') },
  scrub: { name: 'scrub', question: 'Does the picture follow while scrubbing?' },
  startLag: { name: 'start lag', question: 'How long from the key to a moving picture?', number: { ...times('places a passage'), name: 'places' } },
  stepDown: { name: 'step down', question: 'Which is the first preview scale that holds?' },
  ramp: { name: 'ramp', question: 'At which passage does it stop holding?' },
  halfRate: { name: 'half rate', question: 'What does half the frame rate do to the load?' },
  soak: { name: 'soak', question: 'Does it still hold when it is warm?', number: { name: 'minutes', label: 'at most, minutes', usual: 10, most: 480 } },
  compare: { name: 'compare two', question: 'Does one change make a difference?', number: { ...times('pairs'), name: 'pairs' } }
};

/** What an export trial can write. */
export const exportFormats: Record<NonNullable<Schemas['ExportFormat']>, string> = {
  avc: 'AVC 8-bit 4:2:0',
  hevc: 'HEVC 10-bit 4:2:0',
  rdd36: 'RDD 36 10-bit 4:2:2'
};

export const markKinds: Record<MarkKind, string> = {
  pictureFault: 'picture fault',
  stutter: 'stutter seen',
  fan: 'fan',
  noise: 'noise',
  crash: 'crash',
  other: 'other'
};

export const trialStates: Record<NonNullable<Schemas['TrialState']>, string> = {
  waiting: 'waiting',
  playing: 'playing',
  finished: 'finished',
  stopped: 'stopped',
  failed: 'failed'
};

/** How a run ended. */
export const endings: Record<string, string> = { playing: 'playing', finished: 'finished', stopped: 'stopped early', cutShort: 'interrupted', unreadable: 'damaged' };

/** Where a play stands, behind the name of its trial. What is made before its first run counts; the one run of a plain play needs no words. */
export function stepOf({ kind, step, stepNumber, stepCount }: Pick<Play, 'kind' | 'step' | 'stepNumber' | 'stepCount'>): string {
  if (kind === 'play' && (stepNumber > 0 || !step)) return '';
  const number = stepCount && stepCount > 1 && !step.includes(' of ') ? `, ${stepNumber} of ${stepCount}` : '';
  return `: ${step || 'about to begin'}${number}`;
}

export const machineForms = { slate: 'slate', laptop: 'laptop', smallDesktop: 'small desktop', allInOne: 'all-in-one', tower: 'tower' } as const;

/** A chance; never a certainty. */
export const chanceOf = (chance: number) => (chance > 0.99 ? '> 99 %' : chance < 0.01 ? '< 1 %' : percent(chance));

export const percent = (share: number) => `${Math.round(share * 100)} %`;

/** "40 s", "3 min". */
export const length = (seconds: number) => (seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`);
