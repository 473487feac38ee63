import type { Schemas } from '../api/client';
import { fixed, percent } from '../words';

/** What was captured about a machine before a run, as pairs of a name and a value in words. */
export function conditionsInWords(conditions: Schemas['Conditions']): [string, string][] {
  const { machine } = conditions;
  const known: [string, string | null | undefined][] = [
    ['player', conditions.player],
    ['kernel', conditions.kernel],
    ['cores', conditions.usableCores.join(', ')],
    ['other load before', orNull(conditions.otherLoad, (cores) => `${fixed(cores, 2)} cores`)],
    ['display thread', orNull(conditions.presenterPriority, (has) => (has ? 'with priority' : 'without priority'))],
    ['power', orNull(machine?.onMains, (mains) => (mains ? 'mains' : `battery${orNull(machine?.batteryShare, (share) => ` at ${percent(share)}`) ?? ''}`))],
    ['governor', machine?.governor],
    ['clock', orNull(machine?.clockShare, (share) => `${percent(share)} of the rated one`)],
    ['temperature before', orNull(machine?.celsius, (celsius) => `${fixed(celsius, 0)} °C`)],
    ['memory free', orNull(machine?.freeMemoryBytes, (bytes) => `${fixed(bytes / 1e9)} GB`)],
    ['room for the run', orNull(machine?.freeDataBytes, (bytes) => `${fixed(bytes / 1e9)} GB`)],
    ['pages open here', orNull(conditions.pagesHere, String)],
    ['threads', orNull(machine?.threads, String)],
    ['rendered passages', conditions.preRendered?.length ? conditions.preRendered.map((index) => index + 1).join(', ') : null],
    ['seed', orNull(conditions.seed, String)]
  ];
  return known.filter((pair): pair is [string, string] => !!pair[1]);
}

const orNull = <T>(value: T | null | undefined, words: (value: T) => string) => (value == null ? null : words(value));
