<script lang="ts">
  import { onMount } from 'svelte';
  import { api, type Machine, type Scale, type Schemas } from '../api/client';
  import { exportFormats, kinds, scales } from '../words';
  import NumberField from '../NumberField.svelte';
  import type { Ask, Change } from './ask.svelte';
  import { decidedBy, decodingPlaces, effectPlaces } from './devices';
  import PreRenders from './PreRenders.svelte';

  let { ask, machine, timeline, scale }: { ask: Ask; machine: Machine; timeline: { id: string; effects: string[] }; scale: Scale } = $props();
  let devices = $state<Schemas['Device'][]>([]);
  const decoding = $derived(decodingPlaces(machine, devices));
  const effects = $derived(effectPlaces(machine, devices));
  const decided = $derived(machine.kind === 'real' ? null : decidedBy(ask.programNamed(ask.program)));
  // Another machine has other devices.
  $effect(() => {
    if (machine.kind === 'real' && !devices.length) return;
    if (!decoding.some(([value]) => value === ask.decodeOn)) ask.decodeOn = '';
    if (!effects.some(([value]) => value === ask.effectsOn)) ask.effectsOn = '';
  });
  const about = $derived(kinds[ask.kind]);

  onMount(async () => (devices = (await api.GET('/api/play/devices')).data ?? []));
  onMount(() => void ask.readPrograms());

  const choices: Record<Change, { name: string; values: () => string[] }> = {
    scale: { name: 'preview scale', values: () => scales.filter((one) => one !== scale) },
    proxies: { name: 'proxies', values: () => ['none', 'half', 'quarter'].filter((one) => one !== ask.proxies) },
    preRenders: { name: 'pre-renders', values: () => [ask.preRenders ? 'off' : 'on'] },
    cache: { name: 'file cache', values: () => ['asFound', 'cold', 'warm'].filter((one) => one !== ask.cache) },
    decodeOn: { name: 'decode on', values: () => decoding.map(([value]) => value).filter((one) => one !== ask.decodeOn) },
    effectsOn: { name: 'effects on', values: () => effects.map(([value]) => value).filter((one) => one !== ask.effectsOn) },
    threads: { name: 'threads', values: () => ['1', '2', '4', '8', '16'] },
    program: { name: 'editing program', values: () => ['', ...ask.programs.map((one) => one.id)].filter((one) => one !== ask.program) },
    effect: { name: 'without the effect', values: () => timeline.effects }
  };
  const values = $derived(choices[ask.change].values());

  function named(change: Change, value: string) {
    if (change === 'program') return ask.programNamed(value)?.name ?? 'Hardy Bench player';
    const place = change === 'decodeOn' ? decoding : change === 'effectsOn' ? effects : [];
    return place.find(([one]) => one === value)?.[1] ?? value;
  }

  $effect(() => {
    if (!values.includes(ask.to)) ask.to = values[0] ?? '';
  });
  const helps: [string, string][] = [
    ['when late', 'Keep time follows the clock: frames are skipped, and an overdue one is shown only while nothing newer is ready. Keep every frame lets the clock slip. Without a clock every frame is shown as soon as it is ready, also faster than real time.'],
    ['footage', 'Cold: dropped from the file cache first, so that the drive is part of the test. Warm: read in first, so that it is not.'],
    ['proxies', 'Smaller all-intra copies of the clips are created if missing and played in their place. Helps where decoding or the drive limits.'],
    ['automatic scale', 'Halves the preview scale within a passage when a tenth of a second’s slots are missed. Helps where effects limit.'],
    ['pre-renders', 'Passages rendered beforehand are played from their files. An edit of a passage leaves its render unused.'],
    ['show pictures', 'Small pictures of what plays come to this page. Making them takes some of what is measured.'],
    ['play in real time', 'A stand-in’s run is calculated at once. With this it plays in real time and can be watched; the result is the same.'],
    ['decode on, effects on', 'A bare run uses the devices of the machine. Processor only uses none of them. On this machine one device can be chosen by FFmpeg’s name. The processor takes over what a device refuses, and the run states it.'],
    ['plays as', 'A stand-in can use its parts as an editing program would. This machine always plays with the product’s own player.'],
    ['other programs', 'Cores that they keep busy on a stand-in and memory that they hold. On this machine it is what really runs.'],
    ['threads', 'For each decoder and for effects; empty for one per core.'],
    ['preview scale', 'The size at which effects work. The product’s own player decodes at full size at all of them.']
  ];
  const cacheWords: Record<string, string> = { asFound: 'as found', cold: 'cold: dropped before', warm: 'warm: read before' };
</script>

<section class="mt-2 grid gap-x-8 gap-y-2 border-t border-base-300 pt-2 text-sm lg:grid-cols-3" aria-label="Conditions" data-testid="conditions">
  <fieldset class="grid content-start gap-1.5">
    <legend class="font-semibold">Trial</legend>
    {#if about.number}
      <label class="row">{about.number.label} <NumberField class="input-sm w-20" min={1} max={about.number.most} whole value={ask.number ?? about.number.usual} onchange={(number) => (ask.number = number)} /></label>
    {/if}
    {#if ask.kind === 'export'}
      <label class="row">format <select class="select select-sm w-44" bind:value={ask.writes}><option value="">every format</option>{#each Object.entries(exportFormats) as [value, word] (value)}<option {value}>{word}</option>{/each}</select></label>
      {#if ask.writes}
        <label class="row">encoder <select class="select select-sm w-44" bind:value={ask.encoder}><option value="processor">processor</option><option value="mediaEngine">media engine</option></select></label>
      {/if}
    {/if}
    {#if ask.kind === 'compare'}
      <label class="row">
        the second side changes
        <select class="select select-sm w-36" bind:value={ask.change}>
          {#each Object.entries(choices) as [change, { name }] (change)}<option value={change}>{name}</option>{/each}
        </select>
      </label>
      <label class="row">
        to
        <select class="select select-sm w-36" bind:value={ask.to}>
          {#each values as one (one)}<option value={one}>{named(ask.change, one)}</option>{/each}
        </select>
      </label>
    {/if}
    {#if ask.kind !== 'export'}
      <label class="row">
        when late
        <select class="select select-sm w-40" bind:value={ask.policy}>
          <option value="keepTime">keep time</option>
          <option value="keepFrames">keep every frame</option>
          <option value="unpaced">no clock</option>
        </select>
      </label>
    {/if}
    <label class="row">
      footage
      <select class="select select-sm w-40" bind:value={ask.cache}>
        {#each Object.entries(cacheWords) as [cache, words] (cache)}<option value={cache}>{words}</option>{/each}
      </select>
    </label>
    {#if ask.machineId}
      <label class="row">play in real time <input type="checkbox" class="checkbox checkbox-sm" bind:checked={ask.atClock} /></label>
    {/if}
  </fieldset>
  <fieldset class="grid content-start gap-1.5">
    <legend class="font-semibold">Aids <span class="quiet font-normal">all off in a bare run</span></legend>
    <label class="row">
      proxies
      <select class="select select-sm w-40" bind:value={ask.proxies}>
        <option value="none">none</option>
        <option value="half">half the raster</option>
        <option value="quarter">quarter of it</option>
      </select>
    </label>
    <label class="row">automatic scale <input type="checkbox" class="checkbox checkbox-sm" bind:checked={ask.automaticScale} /></label>
    <label class="row">pre-renders <input type="checkbox" class="checkbox checkbox-sm" bind:checked={ask.preRenders} /></label>
    {#if ask.preRenders && !ask.machineId}<PreRenders timelineId={timeline.id} />{/if}
    <label class="row">show pictures, at a cost <input type="checkbox" class="checkbox checkbox-sm" bind:checked={ask.pictures} /></label>
  </fieldset>
  <fieldset class="grid content-start gap-1.5">
    <legend class="font-semibold">Where the work is done</legend>
    <label class="row">
      plays as
      <select class="select select-sm w-52" bind:value={ask.program}>
        <option value="">Hardy Bench player</option>
        {#each ask.programs as program (program.id)}<option value={program.id}>{program.name}</option>{/each}
      </select>
    </label>
    <label class="row">
      decode on
      <select class="select select-sm w-52" bind:value={ask.decodeOn}>
        {#each decoding as [value, name] (value)}<option {value}>{name}</option>{/each}
      </select>
    </label>
    <label class="row">
      effects on
      <select class="select select-sm w-52" bind:value={ask.effectsOn}>
        {#each effects as [value, name] (value)}<option {value}>{name}</option>{/each}
      </select>
    </label>
    {#if decided}<p class="quiet text-xs" data-testid="decided">{decided}</p>{/if}
    <div class="row">
      other programs
      <span class="flex items-center gap-1">
        <NumberField class="input-sm w-14" min={0} max={256} label="Cores that other programs keep busy" value={ask.othersCores} onchange={(cores) => (ask.othersCores = cores)} /> cores,
        <NumberField class="input-sm w-14" min={0} max={8192} label="GB that other programs hold" value={ask.othersMemory} onchange={(held) => (ask.othersMemory = held)} /> GB
      </span>
    </div>
    <label class="row">threads <NumberField class="input-sm w-30" min={1} max={64} whole placeholder="one per core" value={ask.threads} onempty={() => (ask.threads = null)} onchange={(threads) => (ask.threads = threads)} /></label>
  </fieldset>
  <details class="text-xs lg:col-span-3">
    <summary class="cursor-pointer">What each of these means</summary>
    <dl class="mt-1 grid gap-x-4 gap-y-0.5 sm:grid-cols-[11rem_1fr]">
      {#each helps as [name, meaning] (name)}<dt class="font-semibold">{name}</dt><dd>{meaning}</dd>{/each}
    </dl>
  </details>
</section>

<style>
  .row {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.75rem;
  }
</style>
