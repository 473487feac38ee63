import { kinds } from '../words';
import type { Ask, Change } from './ask.svelte';

/** What of an ask stands in the page's address besides machine and trial, each with its usual value. */
const kept = {
  policy: 'keepTime',
  pictures: false,
  automaticScale: false,
  proxies: 'none',
  preRenders: false,
  cache: 'asFound',
  decodeOn: '',
  effectsOn: '',
  threads: null as number | null,
  program: '',
  othersCores: 0,
  othersMemory: 0,
  writes: '',
  encoder: 'processor',
  times: 3,
  minutes: 10,
  atClock: false,
  change: 'scale',
  to: 'half'
};
type Kept = typeof kept;
type Name = keyof Kept;
const changes: Change[] = ['scale', 'proxies', 'preRenders', 'cache', 'effectsOn', 'decodeOn', 'threads', 'program', 'effect'];
const names = Object.keys(kept) as Name[];

/** Machine, trial and conditions as names and values of an address; null where they are as usual. */
export function toAddress(ask: Pick<Ask, 'machineId' | 'kind' | Name>): Record<'on' | 'trial' | 'with', string | null> {
  const compares = ask.kind === 'compare';
  const changed = names.filter((name) => ask[name] !== kept[name] && (compares || (name !== 'change' && name !== 'to')));
  return {
    on: ask.machineId === 'this' ? null : ask.machineId,
    trial: ask.kind === 'play' ? null : ask.kind,
    with: changed.length ? changed.map((name) => `${name}:${ask[name]}`).join(',') : null
  };
}

/** Takes over what an address says; what it does not know is left as it is. */
export function fromAddress(ask: Ask, address: Pick<URLSearchParams, 'get'>) {
  ask.machineId = address.get('on') ?? ask.machineId;
  const trial = address.get('trial');
  if (trial && trial in kinds) ask.kind = trial as Ask['kind'];
  const into = ask as unknown as Record<Name, unknown>;
  for (const one of (address.get('with') ?? '').split(',')) {
    const [name, text] = one.split(/:(.*)/s) as [Name, string | undefined];
    if (text === undefined || !names.includes(name) || (name === 'change' && !changes.includes(text as Change))) continue;
    const usual = kept[name];
    const number = Number(text);
    if (typeof usual === 'boolean') into[name] = text === 'true';
    else if (typeof usual === 'string') into[name] = text;
    else if (Number.isFinite(number)) into[name] = number;
  }
}
