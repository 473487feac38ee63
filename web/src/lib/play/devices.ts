import type { Machine, Schemas } from '../api/client';

type Program = Schemas['EditingProgram'];

/** A place to decode or to run effects on: what settings say, and how the page calls it. */
export type Place = [value: string, name: string];

const processor: Place = ['processor', 'processor only'];

/** Where a machine can decode: its own devices first, as in a bare run. A stand-in has those of its form, this machine those that FFmpeg finds. */
export function decodingPlaces(machine: Machine, devices: Schemas['Device'][]): Place[] {
  if (machine.kind !== 'this') return [['', machine.decodes.length ? 'its media engine' : 'processor: no media engine'], processor];
  return [['', own(devices)], processor, ...named(devices)];
}

/** The same for effects. */
export function effectPlaces(machine: Machine, devices: Schemas['Device'][]): Place[] {
  if (machine.kind !== 'this') return [['', machine.graphics ?? 'processor: no graphics'], processor];
  return [['', own(devices)], processor, ...named(devices)];
}

/** What an editing program decides of it, whatever the machine has. */
export function decidedBy(program: Program | null): string | null {
  if (!program) return null;
  const decoding = program.onMediaEngine ? (program.onMediaEngine.length ? 'some formats' : 'nothing') : 'everything it takes';
  return `${program.name} gives the media engine ${decoding} and works effects on ${program.composesOn === 'processor' ? 'the processor' : 'graphics'}.`;
}

function own(devices: Schemas['Device'][]): string {
  const names = devices.filter((device) => device.isOwn).map((device) => device.name);
  return names.length ? `its devices: ${names.join(', ')}` : 'processor: no device found';
}

function named(devices: Schemas['Device'][]): Place[] {
  return devices.filter((device) => !device.refusal).map((device) => [device.name, device.isOwn ? device.name : `${device.name}, in software`]);
}
