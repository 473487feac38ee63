import { api, orThrow, type Clip, type EffectKind, type PassageReview, type Timeline } from '../api/client';

const SaveAfterMs = 400;
const MaxUndo = 500;

type Answer = { version: number; timeline: Timeline; review: PassageReview[] };

/** A timeline being written: every change can be undone, and is kept by itself shortly after. */
export class Editor {
  timeline = $state.raw<Timeline>(null!);
  review = $state.raw<PassageReview[]>([]);
  clips = $state.raw<Clip[]>([]);
  kinds = $state.raw<EffectKind[]>([]);
  looks = $state.raw<string[]>([]);
  state = $state<'kept' | 'changed' | 'keeping' | 'conflict' | 'offline'>('kept');
  problem = $state<string | null>(null);
  #version = 0;
  #undo = $state.raw<Timeline[]>([]);
  #redo = $state.raw<Timeline[]>([]);
  #timer: ReturnType<typeof setTimeout> | undefined;

  readonly canUndo = $derived(this.#undo.length > 0);
  readonly canRedo = $derived(this.#redo.length > 0);
  readonly kindsById = $derived(new Map(this.kinds.map((kind) => [kind.id, kind])));

  async open(id: string) {
    const [answer, footage, kinds, looks] = await Promise.all([api.GET('/api/timelines/{id}', { params: { path: { id } } }), api.GET('/api/clips'), api.GET('/api/effects'), api.GET('/api/looks')]);
    this.clips = orThrow(footage).clips;
    this.kinds = orThrow(kinds);
    this.looks = orThrow(looks);
    [this.#undo, this.#redo] = [[], []];
    this.#take(orThrow(answer));
  }

  /** Applies a change; an edit that changes nothing is no step. */
  change(edit: (timeline: Timeline) => Timeline) {
    const next = edit(this.timeline);
    if (next === this.timeline) return;
    this.#undo = [...this.#undo.slice(-MaxUndo), this.timeline];
    this.#redo = [];
    this.#show(next);
  }

  undo() {
    const before = this.#undo.at(-1);
    if (!before) return;
    [this.#undo, this.#redo] = [this.#undo.slice(0, -1), [...this.#redo, this.timeline]];
    this.#show(before);
  }

  redo() {
    const after = this.#redo.at(-1);
    if (!after) return;
    [this.#redo, this.#undo] = [this.#redo.slice(0, -1), [...this.#undo, this.timeline]];
    this.#show(after);
  }

  /** Takes a look-up table in; its name is returned. */
  async addLook(file: File): Promise<string> {
    const answer = await fetch(`/api/looks?name=${encodeURIComponent(file.name)}`, { method: 'POST', body: file, headers: { 'content-type': 'application/octet-stream' } });
    const name = await answer.json();
    if (!answer.ok) throw new Error(name.detail ?? `The server answered ${answer.status}.`);
    this.looks = [...this.looks, name];
    return name;
  }

  /** Keeps what was changed now rather than shortly. */
  async keep(): Promise<void> {
    clearTimeout(this.#timer);
    if (this.state === 'keeping') {
      this.#timer = setTimeout(() => void this.keep(), SaveAfterMs);
      return;
    }
    if (this.state !== 'changed' && this.state !== 'offline') return;
    const sent = this.timeline;
    this.state = 'keeping';
    try {
      const answer = await api.PUT('/api/timelines/{id}', { params: { path: { id: sent.id } }, body: { version: this.#version, timeline: sent } });
      if (answer.response.status === 409) {
        this.state = 'conflict';
        this.problem = (answer.error as { detail?: string }).detail ?? null;
        return;
      }
      const kept = orThrow(answer) as Answer;
      this.#version = kept.version;
      if (this.timeline === sent) {
        [this.review, this.state, this.problem] = [kept.review, 'kept', null];
      } else {
        this.state = 'changed';
        await this.keep();
      }
    } catch (failure) {
      this.state = 'offline';
      this.problem = `${(failure as Error).message} What you changed is still here and is kept as soon as the server answers.`;
      this.#timer = setTimeout(() => void this.keep(), 2000);
    }
  }

  /** After a conflict: the other window's timeline takes the place of this one, which can be brought back by undo. */
  async loadSaved() {
    const mine = this.timeline;
    this.#take(orThrow(await api.GET('/api/timelines/{id}', { params: { path: { id: mine.id } } })));
    this.#undo = [...this.#undo, mine];
  }

  /** After a conflict: this window's timeline under another id, which is returned. */
  async keepCopy(): Promise<string> {
    const answer = orThrow(await api.POST('/api/timelines', { body: { title: `${this.timeline.title}, mine`, copyOf: this.timeline } }));
    return answer.timeline.id;
  }

  #show(timeline: Timeline) {
    this.timeline = timeline;
    if (this.state !== 'conflict') this.state = this.state === 'keeping' ? 'keeping' : 'changed';
    clearTimeout(this.#timer);
    if (this.state !== 'conflict') this.#timer = setTimeout(() => void this.keep(), SaveAfterMs);
  }

  #take(answer: Answer) {
    this.#version = answer.version;
    [this.timeline, this.review, this.state, this.problem] = [answer.timeline, answer.review, 'kept', null];
  }
}
