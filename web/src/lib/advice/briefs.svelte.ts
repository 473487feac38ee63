import { api, orThrow, sendFile, type Schemas } from '#lib/api/client.ts';
import { Latest } from '#lib/api/latest.ts';
import { Telling } from '#lib/telling.svelte.ts';

export type Brief = Schemas['Brief'];
export type Answer = Schemas['AnswerDocument'];

/** Briefs: what is listed, what is being written, and what it comes to. */
export class Briefs extends Telling {
  list = $state<Schemas['BriefDocument'][]>([]);
  /** The one that is looked at, as its form has it. */
  draft = $state<Brief | null>(null);
  answer = $state<Answer | null>(null);
  asking = $state(false);
  unanswered = $state<string | null>(null);
  problems = $state<Schemas['RowProblem'][]>([]);
  gone = $state<Brief | null>(null);
  readonly #asked = new Latest<Answer>(({ asking, value, problem }) => {
    if (asking !== undefined) this.asking = asking;
    if (value !== undefined) this.answer = value;
    if (problem !== undefined) this.unanswered = problem;
  });

  #past = $state<string[]>([]);
  readonly canUndo = $derived(this.#past.length > 1);
  readonly open = $derived(this.list.find((one) => one.brief.id === this.draft?.id));
  readonly changed = $derived(!!this.draft && JSON.stringify(this.draft) !== JSON.stringify(this.open?.brief));

  async read() {
    this.list = orThrow(await api.GET('/api/briefs'));
  }

  /** Keeps what is written as a step, so that it can be taken back. */
  note() {
    const now = JSON.stringify(this.draft);
    if (this.draft && this.#past.at(-1) !== now) this.#past = [...this.#past, now];
  }

  /** Takes the last step back. */
  undo = () => {
    if (!this.canUndo) return;
    this.#past = this.#past.slice(0, -1);
    this.draft = JSON.parse(this.#past.at(-1)!) as Brief;
  };

  choose(id: string | null) {
    this.#past = [];
    // The answer to one brief says nothing of another.
    [this.answer, this.unanswered] = [null, null];
    const found = this.list.find((one) => one.brief.id === id);
    this.draft = found ? $state.snapshot(found.brief) : null;
  }

  /** Asks what the draft comes to, as it is now. */
  ask() {
    if (!this.draft || this.draft.timelines.length === 0) {
      [this.answer, this.unanswered] = [null, this.draft ? 'Choose a timeline that stands for the work.' : null];
      this.#asked.ask(null);
      return;
    }
    const body = $state.snapshot(this.draft);
    this.#asked.ask((signal) => api.POST('/api/briefs/answer', { body, signal }));
  }

  keep = () =>
    this.trying(async () => {
      const brief = $state.snapshot(this.draft!);
      const kept = this.open
        ? orThrow(await api.PUT('/api/briefs/{id}', { params: { path: { id: brief.id } }, body: { version: this.open.version, brief } }))
        : orThrow(await api.POST('/api/briefs', { body: brief }));
      await this.read();
      this.choose(kept.brief.id);
      this.said = `${kept.brief.name} is kept.`;
    });

  /** Begins a new one; it is kept only when that is asked for. */
  begin(timelines: string[]) {
    this.#past = [];
    [this.answer, this.unanswered] = [null, null];
    this.draft = { ...plain, timelines, name: 'New brief' };
  }

  putAside = () =>
    this.trying(async () => {
      const brief = $state.snapshot(this.draft!);
      orThrow(await api.DELETE('/api/briefs/{id}', { params: { path: { id: brief.id } } }));
      this.gone = brief;
      await this.read();
      this.choose(this.list[0]?.brief.id ?? null);
    });

  bringBack = () =>
    this.trying(async () => {
      const { id } = this.gone!;
      orThrow(await api.POST('/api/briefs/{id}/restore', { params: { path: { id } } }));
      this.gone = null;
      await this.read();
      this.choose(id);
    });

  bringIn = (file: File) =>
    this.trying(async () => {
      const { added, problems } = await sendFile<Schemas['BriefsRead']>('/api/briefs/import', file);
      await this.read();
      this.problems = problems;
      if (added.length) this.choose(added[0].brief.id);
      this.said = `${added.length === 1 ? 'One brief was' : `${added.length} briefs were`} added from ${file.name}.`;
    });
}

/** Everything that needs not be said. */
const plain: Brief = {
  id: '',
  name: '',
  timelines: [],
  hoursAWeek: null,
  scale: 'full',
  growth: 1,
  mostStartSeconds: null,
  mostScrubSeconds: null,
  others: null,
  forms: null,
  mostDecibels: null,
  budget: null,
  owned: null,
  builds: true,
  mayUse: null
};
