import { describe, expect, test } from 'vitest';
import type { Ask } from './ask.svelte';
import { fromAddress, toAddress } from './askAddress';

const usual = () =>
  ({
    machineId: '', kind: 'play', policy: 'keepTime', pictures: false, automaticScale: false, proxies: 'none', preRenders: false, cache: 'asFound',
    decodeOn: '', effectsOn: '', threads: null, program: '', othersCores: 0, othersMemory: 0, writes: '', encoder: 'processor', number: null,
    atClock: false, change: 'scale', to: 'half'
  }) as unknown as Ask;

const address = (ask: Ask) => new URLSearchParams(Object.entries(toAddress(ask)).filter((one): one is [string, string] => one[1] !== null));

describe('an ask in the address', () => {
  test('a bare play on this machine leaves the address as it is', () => {
    expect(toAddress(usual())).toEqual({ on: null, trial: null, with: null });
  });

  test('machine, trial and conditions come back as they were', () => {
    const asked = Object.assign(usual(), { machineId: 'curlew-desk', kind: 'compare', proxies: 'half', threads: 4, preRenders: true, change: 'cache', to: 'cold' });
    const again = usual();
    fromAddress(again, address(asked));
    expect(again).toEqual(asked);
    expect(toAddress(asked).with).toBe('proxies:half,preRenders:true,threads:4,change:cache,to:cold');
  });

  test('an address of the version before keeps its number', () => {
    const ask = usual();
    fromAddress(ask, new URLSearchParams('trial=soak&with=minutes:25'));
    expect([ask.kind, ask.number]).toEqual(['soak', 25]);
  });

  test('what makes no sense is left as it is', () => {
    const ask = usual();
    fromAddress(ask, new URLSearchParams('trial=juggle&with=threads:many,nothing:1,times,machineId:x,change:everything'));
    expect(ask).toEqual(usual());
  });
});
