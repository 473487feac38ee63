import { api, orThrow, sendFile, type Schemas } from '#lib/api/client.ts';
import { AutoSave } from '#lib/autosave.svelte.ts';
import { same } from '#lib/same.ts';
import { Notices } from '#lib/notices.svelte.ts';

export type Program = Schemas['EditingProgram'];
export type ProgramDocument = Schemas['ProgramDocument'];

/** The editing programs that stand-ins can play as: what is listed, what is being changed, and what became of it. */
export class Programs extends Notices {
  list = $state<ProgramDocument[]>([]);
  /** The one that is looked at, as its form has it. */
  draft = $state<Program | null>(null);
  problems = $state<Schemas['RowProblem'][]>([]);
  gone = $state<Program | null>(null);

  readonly open = $derived(this.list.find((one) => one.program.id === this.draft?.id));
  readonly changed = $derived(!!this.draft && !!this.open && !same(this.draft, this.open.program));

  async read() {
    this.list = orThrow(await api.GET('/api/programs'));
  }

  /** Opens one; none for the product's own player. */
  choose(id: string | null) {
    void this.saving.now();
    const found = this.list.find((one) => one.program.id === id);
    this.draft = found ? $state.snapshot(found.program) : null;
  }

  readonly saving = new AutoSave<Program>(async (id, program) => {
    const before = this.list.find((one) => one.program.id === id);
    if (!before) return undefined;
    orThrow(await api.PUT('/api/programs/{id}', { params: { path: { id } }, body: { version: before.version, program }, keepalive: true }));
    await this.read();
    return before.program;
  });

  readonly canUndo = $derived(this.changed || (!!this.draft && this.saving.canUndo(this.draft.id)));

  /** Notes that the one that is open was changed; called whenever it is. */
  watch() {
    if (this.changed) this.saving.touch(this.draft!.id, $state.snapshot(this.draft!));
    else if (this.saving.state !== 'saving') this.saving.settle();
  }

  /** Takes back what is not saved, else the last change that was. */
  undo = () => {
    const before = this.changed ? this.open!.program : this.saving.back(this.draft!.id);
    if (before) this.draft = $state.snapshot(before);
  };

  /** After a conflict: the other window's version takes the place of this one. */
  loadSaved = () =>
    this.trying(async () => {
      await this.read();
      this.choose(this.draft!.id);
      this.saving.settle();
    });

  /** After a conflict: this window's version becomes one of its own. */
  saveCopy = () => this.add($state.snapshot(this.draft!)).then(() => this.saving.settle());

  /** @param like The one to begin from. */
  add = (like: Program) => this.trying(async () => this.take(orThrow(await api.POST('/api/programs', { body: { ...like, id: '', name: this.#free(like.name) } }))));

  remove = () =>
    this.trying(async () => {
      const program = $state.snapshot(this.draft!);
      await this.saving.now();
      orThrow(await api.DELETE('/api/programs/{id}', { params: { path: { id: program.id } } }));
      [this.gone, this.draft] = [program, null];
      this.saving.settle();
      await this.read();
    });

  undoDelete = () =>
    this.trying(async () => {
      const { id } = this.gone!;
      orThrow(await api.POST('/api/programs/{id}/restore', { params: { path: { id } } }));
      this.gone = null;
      await this.read();
      this.choose(id);
    });

  importFile = (file: File) =>
    this.trying(async () => {
      const { added, problems } = await sendFile<Schemas['ProgramsRead']>('/api/programs/import', file);
      await this.read();
      this.problems = problems;
      this.choose(added[0]?.program.id ?? null);
      this.done = `${added.length === 1 ? 'One editing program was' : `${added.length} editing programs were`} added from ${file.name}.`;
    });

  async take({ program }: ProgramDocument) {
    await this.read();
    this.choose(program.id);
  }

  #free(name: string) {
    const taken = this.list.map((one) => one.program.name);
    for (let n = 1; ; n++) {
      const free = n === 1 ? name : `${name.slice(0, 70)} (${n})`;
      if (!taken.includes(free)) return free;
    }
  }
}

/** As the product's own player does it, to begin from. */
export const plain: Program = {
  id: '',
  name: 'New editing program',
  summary: '',
  onMediaEngine: null,
  composesOn: 'graphics',
  effectsAt: 'timeline',
  onOneCore: null,
  inColour: false,
  decoderCores: null,
  graphicsUnits: 8,
  lookAhead: 6,
  whenLate: 'keepTime',
  decodesSmaller: false,
  rendersAt: 'full',
  reservesGigabytes: 0
};
