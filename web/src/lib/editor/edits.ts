import type { Clip, Effect, EffectKind, Passage, Timeline } from '../api/client';

/** Edits of a timeline as pure functions: each returns a new timeline and changes nothing. */

export function emptyPassage(timeline: Timeline, clipId: string): Passage {
  const frames = Math.round((5 * timeline.rate.numerator) / timeline.rate.denominator);
  return { question: 'New passage', frameCount: frames, layers: [{ clipId, effects: [], startFrame: 0 }], over: [] };
}

/** Rates that a timeline is offered, as fractions. */
export const rates = ['24000/1001', '24/1', '25/1', '30000/1001', '30/1', '50/1', '60000/1001', '60/1', '100/1', '120/1'];
export const rateName = (text: string) => String(Math.round((1000 * Number(text.split('/')[0])) / Number(text.split('/')[1])) / 1000);

/** Takes raster, rate and depth from a clip. */
export function like(timeline: Timeline, clip: Clip): Timeline {
  const [width, height] = { HD: [1920, 1080], UHD: [3840, 2160] }[clip.raster] ?? clip.raster.split('×').map(Number);
  const rate = rates.find((text) => rateName(text) === clip.rate) ?? `${Math.round(Number(clip.rate))}/1`;
  const [numerator, denominator] = rate.split('/').map(Number);
  return { ...timeline, raster: { width, height }, rate: { numerator, denominator }, bitDepth: clip.encoding.includes('10-bit') ? 10 : 8 };
}

export const withPassages = (timeline: Timeline, passages: Passage[]): Timeline => ({ ...timeline, passages });

/** Puts passages in before the one at `at`. */
export const insert = (timeline: Timeline, at: number, added: Passage[]) =>
  withPassages(timeline, [...timeline.passages.slice(0, at), ...added, ...timeline.passages.slice(at)]);

export const remove = (timeline: Timeline, rows: number[]) => withPassages(timeline, timeline.passages.filter((_, i) => !rows.includes(i)));

/** Copies stand right behind the last of the rows. */
export function duplicate(timeline: Timeline, rows: number[]): Timeline {
  const sorted = [...rows].sort((a, b) => a - b);
  return insert(timeline, sorted[sorted.length - 1] + 1, sorted.map((row) => structuredClone(timeline.passages[row])));
}

/** Moves rows together so that the first of them stands at `to` of what is left. */
export function move(timeline: Timeline, rows: number[], to: number): Timeline {
  const sorted = [...rows].sort((a, b) => a - b);
  const moved = sorted.map((row) => timeline.passages[row]);
  const rest = timeline.passages.filter((_, i) => !rows.includes(i));
  const at = Math.max(0, Math.min(rest.length, to));
  return withPassages(timeline, [...rest.slice(0, at), ...moved, ...rest.slice(at)]);
}

/** Cuts a passage in two halves; the second goes on in the footage where the first ends. */
export function split(timeline: Timeline, row: number, sourceRates: Record<string, number>): Timeline {
  const passage = timeline.passages[row];
  const first = Math.floor(passage.frameCount / 2);
  if (first < 1) return timeline;
  const fps = timeline.rate.numerator / timeline.rate.denominator;
  const second: Passage = {
    ...passage,
    frameCount: passage.frameCount - first,
    layers: passage.layers.map((layer) => ({
      ...layer,
      startFrame: (layer.startFrame ?? 0) + Math.floor((first * (layer.retime?.speed ?? 1) * (sourceRates[layer.clipId] ?? fps)) / fps + 1e-9)
    }))
  };
  return withPassages(timeline, [...timeline.passages.slice(0, row), { ...passage, frameCount: first }, second, ...timeline.passages.slice(row + 1)]);
}

/** Changes the passages of some rows. */
export const change = (timeline: Timeline, rows: number[], to: (passage: Passage) => Passage) =>
  withPassages(timeline, timeline.passages.map((passage, i) => (rows.includes(i) ? to(passage) : passage)));

/** Another clip in every layer that plays footage nobody has. Where that began was counted at the timeline's rate; the same
 * moment of the new clip is meant. */
export function relink(timeline: Timeline, from: string, to: { id: string; rate: number }): Timeline {
  const share = (to.rate * timeline.rate.denominator) / timeline.rate.numerator;
  return change(timeline, timeline.passages.map((_, i) => i), (passage) => ({
    ...passage,
    layers: passage.layers.map((layer) => (layer.clipId === from ? { ...layer, clipId: to.id, startFrame: Math.round((layer.startFrame ?? 0) * share) } : layer))
  }));
}

/** Clips that layers play and nobody has. */
export const missingClips = (timeline: Timeline, known: Set<string>) =>
  [...new Set(timeline.passages.flatMap((passage) => passage.layers.map((layer) => layer.clipId)))].filter((id) => !known.has(id));

/** An effect at its defaults. */
export const freshEffect = (kind: EffectKind): Effect => ({
  id: kind.id,
  settings: Object.fromEntries(kind.settings.map((setting) => [setting.name, setting.default])),
  text: kind.textLabel === 'look' ? 'warm-stage' : kind.textLabel ? 'Low tide' : null
});

/** Short words for what a passage plays. */
export function chips(passage: Passage, kinds: Map<string, EffectKind>): string[] {
  const layers = passage.layers.map((layer) => layer.clipId + (layer.retime ? ` ${Math.round(layer.retime.speed * 100)} %` : '') + (layer.opacity != null && layer.opacity < 1 ? `, ${Math.round(layer.opacity * 100)} % opaque` : ''));
  const effects = [...passage.layers.flatMap((layer) => layer.effects), ...passage.over].filter((effect) => !effect.isOff).map((effect) => kinds.get(effect.id)?.label ?? effect.id);
  return [...(layers.length > 3 ? [`${layers.length} layers`, ...new Set(layers)] : layers), ...effects, ...(passage.transition ? [passage.transition] : [])];
}
