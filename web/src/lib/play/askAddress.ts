import { kinds } from '../words';
import { Ask, type Change } from './ask.svelte';

/** What of an ask stands in the page's address besides machine and trial. */
const names = [
  'policy', 'pictures', 'automaticScale', 'proxies', 'preRenders', 'cache', 'decodeOn', 'effectsOn', 'threads', 'program', 'othersCores', 'othersMemory',
  'writes', 'encoder', 'number', 'atClock', 'change', 'to'
] as const;
type Name = (typeof names)[number];
/** Each as it is before anybody chose. */
const usual = new Ask();
const changes: Change[] = ['scale', 'proxies', 'preRenders', 'cache', 'effectsOn', 'decodeOn', 'threads', 'program', 'effect'];

/** Machine, trial and conditions as names and values of an address; null where they are as usual. */
export function toAddress(ask: Pick<Ask, 'machineId' | 'kind' | Name>): Record<'on' | 'trial' | 'with', string | null> {
  const compares = ask.kind === 'compare';
  const changed = names.filter((name) => ask[name] !== usual[name] && (compares || (name !== 'change' && name !== 'to')));
  return {
    on: ask.machineId || null,
    trial: ask.kind === 'play' ? null : ask.kind,
    with: changed.length ? changed.map((name) => `${name}:${ask[name]}`).join(',') : null
  };
}

/** Names in addresses of the version before. */
const former: Record<string, Name> = { times: 'number', minutes: 'number' };

/** Takes over what an address says; what it does not know is left as it is. */
export function fromAddress(ask: Ask, address: Pick<URLSearchParams, 'get'>) {
  ask.machineId = address.get('on') ?? ask.machineId;
  const trial = address.get('trial');
  if (trial && Object.hasOwn(kinds, trial)) ask.kind = trial as Ask['kind'];
  const into = ask as unknown as Record<Name, unknown>;
  for (const one of (address.get('with') ?? '').split(',')) {
    const [written, text] = one.split(/:(.*)/s);
    const name = (former[written] ?? written) as Name;
    if (text === undefined || !names.includes(name) || (name === 'change' && !changes.includes(text as Change))) continue;
    const number = Number(text);
    if (typeof usual[name] === 'boolean') into[name] = text === 'true';
    else if (typeof usual[name] === 'string') into[name] = text;
    else if (Number.isFinite(number)) into[name] = number;
  }
}
