import { api, orThrow, sendFile, type Machine, type Schemas } from '#lib/api/client.ts';
import { Telling } from '#lib/telling.svelte.ts';

export type Described = Schemas['Machine'];
export type MachineDocument = Schemas['MachineDocument'];
export type RowProblem = Schemas['RowProblem'];

/** A machine as its form has it, before it is kept. */
type Draft = { version: number; kept: string; machine: Described };

/** The shelf of machines: what is listed, what is being changed, and what became of it. */
export class Shelf extends Telling {
  list = $state<Machine[]>([]);
  drafts = $state<Record<string, Draft>>({});
  problems = $state<RowProblem[]>([]);
  /** The last one taken away, which can be brought back. */
  gone = $state<Machine | null>(null);

  async read() {
    this.list = orThrow(await api.GET('/api/machines'));
  }

  /** Reads a machine whole, unless it is being changed already. */
  async open(id: string) {
    if (!this.drafts[id]) this.hold(orThrow(await api.GET('/api/machines/{id}', { params: { path: { id } } })));
  }

  isChanged = (id: string) => this.drafts[id] !== undefined && JSON.stringify(this.drafts[id].machine) !== this.drafts[id].kept;

  dropChanges(id: string) {
    this.drafts[id].machine = JSON.parse(this.drafts[id].kept) as Described;
  }

  async keep(id: string) {
    const { version, machine } = this.drafts[id];
    this.hold(orThrow(await api.PUT('/api/machines/{id}', { params: { path: { id } }, body: { version, machine: $state.snapshot(machine) as Described } })));
    await this.read();
    this.said = `${machine.name} is kept. Runs from now on play on it as it is now; earlier ones stand as they were.`;
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

  async putAside(id: string) {
    const machine = this.list.find((one) => one.id === id)!;
    orThrow(await api.DELETE('/api/machines/{id}', { params: { path: { id } } }));
    delete this.drafts[id];
    this.gone = machine;
    await this.read();
  }

  async bringBack() {
    const { id } = this.gone!;
    orThrow(await api.POST('/api/machines/{id}/restore', { params: { path: { id } } }));
    this.gone = null;
    await this.read();
    return id;
  }

  /** Takes in a file; whatever could not be is named beside the list. */
  async bringIn(file: File): Promise<string | undefined> {
    const { added, problems } = await sendFile<Schemas['ShelfView']>(`/api/machines/import?${new URLSearchParams({ name: file.name })}`, file);
    await this.read();
    this.problems = problems;
    this.said = `${added.length === 1 ? 'One machine was' : `${added.length} machines were`} added from ${file.name}${problems.length ? `; ${problems.length} to look at below` : ''}.`;
    return added[0]?.machine.id;
  }

  private hold({ version, machine }: MachineDocument) {
    this.drafts[machine.id] = { version, machine, kept: JSON.stringify(machine) };
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
