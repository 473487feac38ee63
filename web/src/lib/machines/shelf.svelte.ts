import { api, orThrow, sendFile, type Machine, type Schemas } from '#lib/api/client.ts';
import { AutoSave } from '#lib/autosave.svelte.ts';
import { same } from '#lib/same.ts';
import { Notices } from '#lib/notices.svelte.ts';

export type Described = Schemas['Machine'];
export type Figure = Schemas['FigureView'];
export type MachineDocument = Schemas['MachineDocument'];
export type RowProblem = Schemas['RowProblem'];

/** A machine as its form has it, and as it is saved. */
type Draft = { version: number; saved: Described; machine: Described };

/** The list of machines: what it holds, what is being changed, and what became of it. */
export class Shelf extends Notices {
  list = $state<Machine[]>([]);
  figures = $state<Figure[]>([]);
  drafts = $state<Record<string, Draft>>({});
  problems = $state<RowProblem[]>([]);
  /** The last one deleted, which can be restored. */
  gone = $state<Machine | null>(null);

  async read() {
    this.list = orThrow(await api.GET('/api/machines'));
    if (!this.figures.length) this.figures = orThrow(await api.GET('/api/machines/figures'));
  }

  /** Reads a machine whole, unless it is being changed already. */
  async open(id: string) {
    if (!this.drafts[id]) this.hold(orThrow(await api.GET('/api/machines/{id}', { params: { path: { id } } })));
  }

  isChanged = (id: string) => this.drafts[id] !== undefined && !same(this.drafts[id].machine, this.drafts[id].saved);

  /** Takes back what is not saved, else the last change that was. */
  undo(id: string) {
    const draft = this.drafts[id];
    const before = this.isChanged(id) ? draft.saved : this.saving.back(id);
    if (before) draft.machine = structuredClone($state.snapshot(before)) as Described;
  }

  canUndo = (id: string) => this.isChanged(id) || this.saving.canUndo(id);

  readonly saving = new AutoSave<Described>(async (id, machine) => {
    const draft = this.drafts[id];
    if (!draft) return undefined;
    const before = $state.snapshot(draft.saved) as Described;
    const saved = orThrow(await api.PUT('/api/machines/{id}', { params: { path: { id } }, body: { version: draft.version, machine }, keepalive: true }));
    [draft.version, draft.saved] = [saved.version, machine];
    await this.read();
    return before;
  });

  /** Notes that the one that is open was changed; called whenever it is. */
  watch(id: string) {
    if (this.isChanged(id)) this.saving.touch(id, $state.snapshot(this.drafts[id].machine) as Described);
    else if (this.saving.state !== 'saving') this.saving.settle();
  }

  /** After a conflict: the other window's version takes the place of this one. */
  async loadSaved(id: string) {
    delete this.drafts[id];
    this.saving.settle();
    await this.open(id);
  }

  /** After a conflict: this window's version becomes a machine of its own. */
  async saveCopy(id: string): Promise<string> {
    const mine = $state.snapshot(this.drafts[id].machine) as Described;
    const made = orThrow(await api.POST('/api/machines', { body: { ...mine, id: '', name: `${mine.name}, mine` } }));
    await this.loadSaved(id);
    this.hold(made);
    await this.read();
    return made.machine.id;
  }

  async add(): Promise<string> {
    const made = orThrow(await api.POST('/api/machines', { body: plain() }));
    this.hold(made);
    await this.read();
    return made.machine.id;
  }

  async duplicate(id: string): Promise<string> {
    const made = orThrow(await api.POST('/api/machines/{id}/duplicate', { params: { path: { id } } }));
    this.hold(made);
    await this.read();
    return made.machine.id;
  }

  async remove(id: string) {
    const machine = this.list.find((one) => one.id === id)!;
    await this.saving.now();
    orThrow(await api.DELETE('/api/machines/{id}', { params: { path: { id } } }));
    delete this.drafts[id];
    this.saving.settle();
    this.gone = machine;
    await this.read();
  }

  async undoDelete() {
    const { id } = this.gone!;
    orThrow(await api.POST('/api/machines/{id}/restore', { params: { path: { id } } }));
    this.gone = null;
    await this.read();
    return id;
  }

  /** Takes in a file; whatever could not be is named beside the list. */
  async importFile(file: File): Promise<string | undefined> {
    const { added, problems } = await sendFile<Schemas['ShelfView']>(`/api/machines/import?${new URLSearchParams({ name: file.name })}`, file);
    await this.read();
    this.problems = problems;
    this.done = `${added.length === 1 ? 'One machine was' : `${added.length} machines were`} added from ${file.name}${problems.length ? `; ${problems.length} to look at below` : ''}.`;
    return added[0]?.machine.id;
  }

  private hold({ version, machine }: MachineDocument) {
    this.drafts[machine.id] = { version, machine, saved: structuredClone(machine) };
  }
}

/** A machine to begin from: everything that has to be there, and nothing else. */
const plain = (): Described => ({
  id: '',
  name: 'New machine',
  kind: 'standIn',
  summary: '',
  processor: { name: '', cores: 8, threads: 16, relativeCoreSpeed: 1, clockGigahertz: 3.5, slowCores: 0, relativeSlowSpeed: null, vectorBits: null },
  graphics: [],
  mediaEngines: [],
  memory: { gigabytes: 16, inUseGigabytes: 4, sticks: 2, megatransfersPerSecond: null, channels: null },
  drives: [{ roles: ['media', 'project', 'renders', 'system'], kind: 'NVMe', readMegabytesPerSecond: 3000, writeMegabytesPerSecond: 2000, latencyMilliseconds: 0.08 }],
  cooling: null,
  price: null,
  pricedOn: null,
  form: null,
  noiseDecibels: null,
  onBattery: false,
  operatingSystem: null,
  driverDate: null
});
