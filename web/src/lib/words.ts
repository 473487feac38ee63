import type { Schemas, Scale, Verdict } from './api/client';

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
  bus: 'bus',
  otherPrograms: 'other programs',
  unknown: 'not clear',
  clip: 'clip'
};

export const limiterWord = (limiter: Limiter | null) => (limiter ? limiters[limiter] : '');

export const reasonWord: Record<Reason, string> = {
  none: '',
  decodeSkipped: 'decoding skipped to catch up',
  effectsSkipped: 'too late for its effects',
  notReady: 'not ready in its slot',
  presenterLate: 'the player woke too late',
  passageFailed: 'the passage failed'
};

export const scales: Scale[] = ['full', 'half', 'quarter', 'eighth'];

export const verdictWord = (verdict: Verdict | null) => verdict ?? 'no verdict';

export const fixed = (value: number, digits = 1) => value.toFixed(digits);

export const money = (price: number | null, currency: string) =>
  price === null ? 'at hand' : `${price.toLocaleString('en-GB')} ${currency}`;

export function ago(date: string, now = Date.now()): string {
  const minutes = Math.round((now - new Date(date).getTime()) / 60000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  return minutes < 48 * 60 ? `${Math.round(minutes / 60)} h ago` : `${Math.round(minutes / 1440)} days ago`;
}
