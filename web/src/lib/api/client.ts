import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Sheet = Schemas['SheetView'];
export type Column = Schemas['ColumnView'];
export type Cell = Schemas['CellView'];
export type PassageHead = Schemas['PassageView'];
export type Machine = Schemas['MachineView'];
export type Clip = Schemas['ClipView'];
export type Making = Schemas['CreationView'];
export type Play = Schemas['PlayView'];
export type RunLine = Schemas['RunLineView'];
export type PassageDetail = Schemas['PassageDetail'];
export type Advice = Schemas['PickDocument'];
export type Scale = NonNullable<Schemas['PreviewScale']>;
export type Policy = NonNullable<Schemas['PlayingPolicy']>;
export type Verdict = NonNullable<Schemas['Verdict']>;

export const api = createClient<paths>({ baseUrl: '' });

/** The server refused something; the message says why in words. */
export class Refused extends Error {
  constructor(message: string, readonly status: number) {
    super(message);
  }
}

/** The answer's data, or an error that says in words what was wrong. */
export function orThrow<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  if (answer.response.ok) return answer.data as T;
  const problem = answer.error as { detail?: string; title?: string } | undefined;
  throw new Refused(problem?.detail ?? problem?.title ?? `The server answered ${answer.response.status}.`, answer.response.status);
}

/** Sends a file's bytes as they are. */
export async function sendFile<T>(address: string, file: File): Promise<T> {
  const answer = await fetch(address, { method: 'POST', body: file, headers: { 'content-type': 'application/octet-stream' } });
  const outcome = await answer.json().catch(() => null);
  return orThrow<T>({ data: outcome, error: outcome, response: answer });
}

export type Timeline = Schemas['Timeline'];
export type Passage = Schemas['Passage'];
export type Layer = Schemas['Layer'];
export type Effect = Schemas['Effect'];
export type EffectKind = Schemas['EffectKind'];
export type PassageReview = Schemas['PassageReview'];
export type Footage = Schemas['FootageView'];
export type Kind = NonNullable<Schemas['TrialKind']>;
export type Settings = Schemas['PlaybackSettings'];
export type Preview = Schemas['PlayPreview'];
export type Trial = Schemas['TrialView'];
export type Mark = Schemas['MarkRow'];
export type MarkKind = NonNullable<Schemas['MarkKind']>;
