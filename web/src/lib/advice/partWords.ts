import { machineForms } from '#lib/words.ts';

/** What the columns of a part are called. */
const labels: Record<string, string> = {
  name: 'name',
  price: 'price, EUR',
  pricedOn: 'the day it was read',
  socket: 'socket',
  watts: 'watts',
  memoryKind: 'kind of memory',
  memorySlots: 'places for sticks',
  mostGigabytes: 'GB of memory at most',
  graphicsSlots: 'long slots',
  nvmeSlots: 'places for NVMe drives',
  sataPorts: 'ports for SATA drives',
  size: 'size',
  sticks: 'sticks',
  gigabytesEach: 'GB of each',
  megatransfersPerSecond: 'MT/s',
  interface: 'connection',
  words: 'what a machine’s description calls it',
  readMegabytesPerSecond: 'reads, MB/s',
  writeMegabytesPerSecond: 'writes, MB/s',
  latencyMilliseconds: 'latency, ms',
  decibels: 'dB(A) at full load',
  form: 'form',
  largest: 'largest board',
  graphicsMillimetres: 'room for graphics, mm',
  coolerMillimetres: 'room for a cooler, mm',
  cores: 'fast cores',
  threads: 'threads',
  relativeCoreSpeed: 'speed of a fast core',
  clockGigahertz: 'clock, GHz',
  slowCores: 'slow cores',
  relativeSlowSpeed: 'speed of a slow core',
  vectorBits: 'vector width, bits',
  peakGigaflops: 'peak, Gflop/s',
  bandwidthGigabytesPerSecond: 'memory, GB/s',
  memoryGigabytes: 'memory, GB',
  busGigabytesPerSecond: 'bus, GB/s',
  megapixelsPerSecond: 'decodes, Mpixel/s',
  capabilities: 'decodes which formats',
  encodedMegapixelsPerSecond: 'encodes, Mpixel/s',
  encodes: 'encodes which formats'
};

export const labelOf = (column: string, kind: string) =>
  column === 'millimetres' ? (kind === 'cooler' ? 'height, mm' : 'length, mm') : (labels[column.split('.').at(-1)!] ?? column);

const sizes = { small: 'small', middle: 'middle', large: 'large' };

/** What a column may hold, where it is one of few; null where it is written. */
export const choicesOf = (column: string): Record<string, string> | null =>
  column === 'size' || column === 'largest' ? sizes
    : column === 'interface' ? { nvme: 'NVMe', sata: 'SATA' }
      : column === 'form' ? machineForms
        : null;

/** The kinds of parts, in the order of a build. */
export const partKinds: Record<string, string> = {
  processor: 'processors',
  board: 'boards',
  memory: 'memory',
  graphics: 'graphics',
  drive: 'drives',
  supply: 'power supplies',
  cooler: 'coolers',
  case: 'cases'
};

/** A new part of a kind: as little as makes one. */
export const plainOf: Record<string, Record<string, string>> = {
  processor: { kind: 'processor', name: 'New processor', price: '300', socket: 'A', watts: '95', 'processor.name': 'New', 'processor.cores': '8', 'processor.threads': '16', 'processor.relativeCoreSpeed': '1', 'processor.clockGigahertz': '4' },
  board: { kind: 'board', name: 'New board', price: '150', socket: 'A', memoryKind: 'DDR5', memorySlots: '4', mostGigabytes: '128', graphicsSlots: '1', nvmeSlots: '2', sataPorts: '4', size: 'middle' },
  memory: { kind: 'memory', name: 'New memory', price: '100', memoryKind: 'DDR5', sticks: '2', gigabytesEach: '16', megatransfersPerSecond: '5600' },
  graphics: { kind: 'graphics', name: 'New graphics', price: '400', 'unit.name': 'New', 'unit.peakGigaflops': '10000', 'unit.bandwidthGigabytesPerSecond': '300', 'unit.memoryGigabytes': '8', 'unit.busGigabytesPerSecond': '15.75', watts: '200', millimetres: '250' },
  drive: { kind: 'drive', name: 'New drive', price: '100', interface: 'nvme', words: 'NVMe', readMegabytesPerSecond: '3500', writeMegabytesPerSecond: '3000', latencyMilliseconds: '0.1' },
  supply: { kind: 'supply', name: 'New power supply', price: '90', watts: '650' },
  cooler: { kind: 'cooler', name: 'New cooler', price: '50', watts: '150', millimetres: '155', decibels: '32' },
  case: { kind: 'case', name: 'New case', price: '80', form: 'tower', largest: 'large', graphicsMillimetres: '350', coolerMillimetres: '165' }
};
