import { api, orThrow, sendFile, type Schemas } from '#lib/api/client.ts';
import { Latest } from '#lib/api/latest.ts';
import { AutoSave } from '#lib/autosave.svelte.ts';
import { same } from '#lib/same.ts';
import { Notices } from '#lib/notices.svelte.ts';

export type Brief = Schemas['Brief'];
export type Answer = Schemas['AnswerDocument'];

/** Briefs: what is listed, what is being written, and what it comes to. */
export class Briefs extends Notices {
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
  readonly changed = $derived(!!this.draft && !same(this.draft, this.open?.brief));

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
    void this.saving.now();
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

  /** A new one gets its id when it is saved first, which it is as soon as it names its work. */
  readonly saving = new AutoSave<Brief>(async (id, brief) => {
    const before = this.list.find((one) => one.brief.id === id);
    const saved = before
      ? orThrow(await api.PUT('/api/briefs/{id}', { params: { path: { id } }, body: { version: before.version, brief }, keepalive: true }))
      : orThrow(await api.POST('/api/briefs', { body: brief, keepalive: true }));
    if (!before && this.draft?.id === id) this.draft.id = saved.brief.id;
    await this.read();
    return before?.brief;
  });

  /** Notes that the one that is open was changed; called whenever it is. */
  watch() {
    if (this.changed && this.draft!.timelines.length) this.saving.touch(this.draft!.id, $state.snapshot(this.draft!));
    else if (this.saving.state !== 'saving') this.saving.settle();
  }

  /** After a conflict: the other window's version takes the place of this one. */
  loadSaved = () =>
    this.trying(async () => {
      await this.read();
      this.choose(this.draft!.id);
      this.saving.settle();
    });

  /** After a conflict: this window's version becomes one of its own. */
  saveCopy = () =>
    this.trying(async () => {
      const mine = $state.snapshot(this.draft!);
      const made = orThrow(await api.POST('/api/briefs', { body: { ...mine, id: '', name: `${mine.name}, mine` } }));
      await this.read();
      this.choose(made.brief.id);
      this.saving.settle();
    });

  /** Begins a new one. */
  begin(timelines: string[]) {
    void this.saving.now();
    this.#past = [];
    [this.answer, this.unanswered] = [null, null];
    this.draft = { ...plain, timelines, name: 'New brief' };
  }

  remove = () =>
    this.trying(async () => {
      const brief = $state.snapshot(this.draft!);
      await this.saving.now();
      orThrow(await api.DELETE('/api/briefs/{id}', { params: { path: { id: brief.id } } }));
      this.gone = brief;
      this.saving.settle();
      await this.read();
      this.choose(this.list[0]?.brief.id ?? null);
    });

  undoDelete = () =>
    this.trying(async () => {
      const { id } = this.gone!;
      orThrow(await api.POST('/api/briefs/{id}/restore', { params: { path: { id } } }));
      this.gone = null;
      await this.read();
      this.choose(id);
    });

  importFile = (file: File) =>
    this.trying(async () => {
      const { added, problems } = await sendFile<Schemas['BriefsRead']>('/api/briefs/import', file);
      await this.read();
      this.problems = problems;
      if (added.length) this.choose(added[0].brief.id);
      this.done = `${added.length === 1 ? 'One brief was' : `${added.length} briefs were`} added from ${file.name}.`;
    });
}

/** Everything that needs not be said. */
const plain: Brief = {
  id: '',
  name: '',
  timelines: [],
  hoursAWeek: null,
  storedHours: null,
  program: null,
  scale: 'full',
  growth: 1,
  sessionMinutes: 60,
  onBattery: false,
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
