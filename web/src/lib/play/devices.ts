import type { Machine, Schemas } from '../api/client';

type Program = Schemas['EditingProgram'];

/** A place to decode or to run effects on: what settings say, and how the page calls it. */
export type Place = [value: string, name: string];

const processor: Place = ['processor', 'processor only'];

/** Where a machine can decode: its own devices first, as in a bare run. A stand-in has those of its form, this machine those that FFmpeg finds. */
export const decodingPlaces = (machine: Machine, devices: Schemas['Device'][]) =>
  places(machine, devices, machine.decodes.length ? 'its media engine' : 'processor: no media engine');

/** The same for effects. */
export const effectPlaces = (machine: Machine, devices: Schemas['Device'][]) => places(machine, devices, machine.graphics ?? 'processor: no graphics');

/** @param ofStandIn What a stand-in has. */
function places(machine: Machine, devices: Schemas['Device'][], ofStandIn: string): Place[] {
  return machine.kind === 'real' ? [['', own(devices)], processor, ...named(devices)] : [['', ofStandIn], processor];
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
