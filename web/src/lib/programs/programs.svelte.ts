import { api, orThrow, sendFile, type Schemas } from '#lib/api/client.ts';
import { Telling } from '#lib/telling.svelte.ts';

export type Program = Schemas['EditingProgram'];
export type ProgramDocument = Schemas['ProgramDocument'];

/** The editing programs that stand-ins can play as: what is listed, what is being changed, and what became of it. */
export class Programs extends Telling {
  list = $state<ProgramDocument[]>([]);
  /** The one that is looked at, as its form has it. */
  draft = $state<Program | null>(null);
  problems = $state<Schemas['RowProblem'][]>([]);
  gone = $state<Program | null>(null);

  readonly open = $derived(this.list.find((one) => one.program.id === this.draft?.id));
  readonly changed = $derived(!!this.draft && !!this.open && JSON.stringify(this.draft) !== JSON.stringify(this.open.program));

  async read() {
    this.list = orThrow(await api.GET('/api/programs'));
  }

  /** Opens one; none for the product's own player. */
  choose(id: string | null) {
    const found = this.list.find((one) => one.program.id === id);
    this.draft = found ? $state.snapshot(found.program) : null;
  }

  keep = () =>
    this.trying(async () => {
      const program = $state.snapshot(this.draft!);
      const { version } = this.open!;
      await this.take(orThrow(await api.PUT('/api/programs/{id}', { params: { path: { id: program.id } }, body: { version, program } })));
      this.said = `${program.name} is kept. Runs from now on are played by it as it is now; earlier ones stand as they were.`;
    });

  /** @param like The one to begin from. */
  add = (like: Program) => this.trying(async () => this.take(orThrow(await api.POST('/api/programs', { body: { ...like, id: '', name: this.#free(like.name) } }))));

  putAside = () =>
    this.trying(async () => {
      const program = $state.snapshot(this.draft!);
      orThrow(await api.DELETE('/api/programs/{id}', { params: { path: { id: program.id } } }));
      [this.gone, this.draft] = [program, null];
      await this.read();
    });

  bringBack = () =>
    this.trying(async () => {
      const { id } = this.gone!;
      orThrow(await api.POST('/api/programs/{id}/restore', { params: { path: { id } } }));
      this.gone = null;
      await this.read();
      this.choose(id);
    });

  bringIn = (file: File) =>
    this.trying(async () => {
      const { added, problems } = await sendFile<Schemas['ProgramsRead']>('/api/programs/import', file);
      await this.read();
      this.problems = problems;
      this.choose(added[0]?.program.id ?? null);
      this.said = `${added.length === 1 ? 'One editing program was' : `${added.length} editing programs were`} added from ${file.name}.`;
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
