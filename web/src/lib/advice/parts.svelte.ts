import { api, orThrow, sendFile, type Schemas } from '#lib/api/client.ts';
import { AutoSave } from '#lib/autosave.svelte.ts';
import { Notices } from '#lib/notices.svelte.ts';

export type Part = Schemas['PartLine'];
type Cells = Record<string, string>;

/** The parts that machines can be put together from: what is listed, what is being changed, and what became of it. */
export class Parts extends Notices {
  list = $state<Part[]>([]);
  /** What a part of each kind is stated by. */
  columns = $state<Record<string, string[]>>({});
  /** The one that is looked at, as its form has it. */
  draft = $state<Cells | null>(null);
  problems = $state<Schemas['RowProblem'][]>([]);
  gone = $state<Part | null>(null);

  readonly open = $derived(this.list.find((one) => one.id === this.draft?.id));
  readonly changed = $derived(!!this.draft && !!this.open && differs(this.draft, this.open.cells));

  async read() {
    this.list = orThrow(await api.GET('/api/parts'));
    this.columns = orThrow(await api.GET('/api/parts/columns'));
  }

  choose(id: string | null) {
    void this.saving.now();
    const found = this.list.find((one) => one.id === id);
    this.draft = found ? { ...found.cells } : null;
  }

  readonly saving = new AutoSave<Cells>(async (id, cells) => {
    const before = this.list.find((one) => one.id === id);
    if (!before) return undefined;
    orThrow(await api.PUT('/api/parts/{id}', { params: { path: { id } }, body: { version: before.version, cells: filled(cells) }, keepalive: true }));
    await this.read();
    return before.cells;
  });

  readonly canUndo = $derived(this.changed || (!!this.draft && this.saving.canUndo(this.draft.id)));

  /** Notes that the one that is open was changed; called whenever it is. */
  watch() {
    if (this.changed) this.saving.touch(this.draft!.id, { ...this.draft! });
    else if (this.saving.state !== 'saving') this.saving.settle();
  }

  /** Takes back what is not saved, else the last change that was. */
  undo = () => {
    const before = this.changed ? this.open!.cells : this.saving.back(this.draft!.id);
    if (before) this.draft = { ...before };
  };

  /** After a conflict: the other window's version takes the place of this one. */
  loadSaved = () =>
    this.trying(async () => {
      await this.read();
      this.choose(this.draft!.id);
      this.saving.settle();
    });

  /** After a conflict: this window's version becomes one of its own. */
  saveCopy = () => this.add({ ...this.draft! }).then(() => this.saving.settle());

  /** @param like The one to begin from. */
  add = (like: Cells) =>
    this.trying(async () => this.take(orThrow(await api.POST('/api/parts', { body: { cells: { ...filled(like), id: '', name: this.#free(like.name) } } }))));

  remove = () =>
    this.trying(async () => {
      const part = this.open!;
      await this.saving.now();
      orThrow(await api.DELETE('/api/parts/{id}', { params: { path: { id: part.id } } }));
      [this.gone, this.draft] = [part, null];
      this.saving.settle();
      await this.read();
    });

  undoDelete = () =>
    this.trying(async () => {
      const { id } = this.gone!;
      orThrow(await api.POST('/api/parts/{id}/restore', { params: { path: { id } } }));
      this.gone = null;
      await this.read();
      this.choose(id);
    });

  importFile = (file: File) =>
    this.trying(async () => {
      const { added, changed, problems } = await sendFile<Schemas['CatalogueOutcome']>('/api/parts/import', file);
      await this.read();
      this.problems = problems;
      this.done = `Of the parts in ${file.name} ${added} were added and ${changed} changed.`;
      this.choose(this.draft?.id ?? null);
    });

  async take(part: Part) {
    await this.read();
    this.choose(part.id);
  }

  #free(name: string) {
    const taken = this.list.map((one) => one.name);
    let free = name;
    for (let count = 2; taken.includes(free); count++) free = `${name} ${count}`;
    return free;
  }
}

const filled = (cells: Cells): Cells => Object.fromEntries(Object.entries(cells).filter(([, text]) => text.trim() !== ''));

const differs = (one: Cells, other: Cells) => {
  const [mine, theirs] = [filled(one), filled(other)];
  return Object.keys({ ...mine, ...theirs }).some((column) => mine[column] !== theirs[column]);
};
