import { api, orThrow, type Kind, type Policy, type Preview, type Scale, type Schemas, type Settings } from '../api/client';
import { Latest } from '../api/latest';
import { live } from '../live.svelte';
import { kinds } from '../words';

type Proxies = NonNullable<Schemas['Proxies']>;
type FileCache = NonNullable<Schemas['FileCache']>;
type ExportFormat = NonNullable<Schemas['ExportFormat']>;
type EncoderPlace = NonNullable<Schemas['EncoderPlace']>;
type Trial = NonNullable<Schemas['PlayRequest']['trial']>;

/** What stands for a machine in an ask. */
export const askedOn = (machine: Pick<Schemas['MachineView'], 'id' | 'kind'>) => (machine.kind === 'real' ? '' : machine.id);

/** What the second side of a comparison changes. */
export type Change = 'scale' | 'proxies' | 'preRenders' | 'cache' | 'effectsOn' | 'decodeOn' | 'threads' | 'program' | 'effect';

/** What somebody is about to ask a machine; the defaults are a bare play. */
export class Ask {
  /** The machine to play on; empty for this one. */
  machineId = $state('');
  kind = $state<Kind>('play');
  policy = $state<Policy>('keepTime');
  pictures = $state(false);
  automaticScale = $state(false);
  proxies = $state<Proxies>('none');
  preRenders = $state(false);
  cache = $state<FileCache>('asFound');
  decodeOn = $state('');
  effectsOn = $state('');
  threads = $state<number | null>(null);
  /** The id of the editing program that a stand-in plays as; empty for the own player. */
  program = $state('');
  programs = $state<Schemas['EditingProgram'][]>([]);
  /** What other programs take of a stand-in meanwhile. */
  othersCores = $state(0);
  othersMemory = $state(0);
  /** What an export trial writes; empty for every format by every encoder. */
  writes = $state<ExportFormat | ''>('');
  encoder = $state<EncoderPlace>('processor');
  /** The number that each kind of trial takes, such as runs or minutes, where it is not its usual one. */
  #numbers = $state<Partial<Record<Kind, number>>>({});
  /** Whether a stand-in's runs come at the pace of the clock. */
  atClock = $state(false);
  change = $state<Change>('scale');
  to = $state('half');
  preview = $state<Preview | null>(null);
  problem = $state<string | null>(null);
  readonly #looking = new Latest<Preview>(({ asking, value }) => {
    if (!asking) this.preview = value ?? null;
  });

  /** The number of the chosen kind; null for its usual one. */
  get number(): number | null {
    return this.#numbers[this.kind] ?? null;
  }

  set number(value: number | null) {
    this.#numbers[this.kind] = value ?? undefined;
  }

  /** Reads the editing programs once: an address can name one before its list was opened. */
  async readPrograms() {
    if (!this.programs.length) this.programs = ((await api.GET('/api/programs')).data ?? []).map((one) => one.program);
  }

  programNamed(id: string) {
    return this.programs.find((one) => one.id === id) ?? null;
  }

  /** How everything is played at a scale. */
  settings(scale: Scale): Settings {
    return {
      scale,
      policy: this.policy,
      lookAhead: 6,
      pictures: this.pictures,
      automaticScale: this.automaticScale,
      proxies: this.proxies,
      preRenders: this.preRenders,
      cache: this.cache,
      decodeOn: this.decodeOn || null,
      effectsOn: this.effectsOn || null,
      threads: this.threads || null,
      ...(this.othersCores || this.othersMemory ? { others: { cores: this.othersCores, gigabytes: this.othersMemory } } : {}),
      ...(this.program ? { program: this.programNamed(this.program) } : {})
    };
  }

  /** The question with the parameters of its kind. */
  trial(kind: Kind, settings: Settings): Trial {
    const number = kinds[kind].number;
    return {
      kind,
      ...(number ? { [number.name]: this.#numbers[kind] ?? number.usual } : {}),
      ...(kind === 'export' && this.writes ? { format: this.writes, encoder: this.encoder } : {}),
      ...(kind === 'compare' ? this.#secondSide(settings) : {})
    } as Trial;
  }

  #secondSide(settings: Settings) {
    if (this.change === 'effect') return { withoutEffect: this.to };
    return { other: { ...settings, [this.change]: this.change === 'program' ? this.programNamed(this.to) : value(this.change, this.to) } };
  }

  request(timelineId: string, scale: Scale, machineId = this.machineId, kind = this.kind): Schemas['PlayRequest'] {
    const settings = this.settings(scale);
    return { timelineId, machineId: machineId || null, trial: this.trial(kind, settings), settings, atClock: this.atClock };
  }

  /** Asks the server what that would be: what differs from a bare run, how long it takes, whether it makes sense. */
  look(timelineId: string, scale: Scale) {
    const body = this.request(timelineId, scale);
    this.#looking.ask((signal) => api.POST('/api/play/look', { body, signal }));
  }

  /** @param kind Another trial than the one that is chosen. */
  async play(timelineId: string, scale: Scale, machineId = this.machineId, kind = this.kind) {
    this.machineId = machineId;
    this.problem = null;
    try {
      live.asked(orThrow(await api.POST('/api/play', { body: this.request(timelineId, scale, machineId, kind) })));
    } catch (failure) {
      this.problem = (failure as Error).message;
    }
  }
}

function value(change: Change, to: string) {
  if (change === 'threads') return Number(to) || null;
  if (change === 'preRenders') return to === 'on';
  return to || null;
}
