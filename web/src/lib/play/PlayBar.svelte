<script lang="ts">
  import { live } from '../live.svelte';
  import { kinds, length, scales } from '../words';
  import type { Column, Kind, Scale } from '../api/client';
  import { askedOn, type Ask } from './ask.svelte';
  import { toAddress } from './askAddress';
  import Conditions from './Conditions.svelte';

  let {
    ask,
    columns,
    scale,
    timeline,
    onscale,
    onplay,
    onstop
  }: { ask: Ask; columns: Column[]; scale: Scale; timeline: { id: string; effects: string[] }; onscale: (scale: Scale) => void; onplay: () => void; onstop: () => void } =
    $props();

  // svelte-ignore state_referenced_locally: only how the page began decides it
  let open = $state(toAddress(ask).with !== null);
  const machine = $derived(columns.find((column) => askedOn(column.machine) === ask.machineId)?.machine);
  const running = $derived(live.play?.running ? live.play : null);
  const differences = $derived(ask.preview?.differences ?? []);

  const missing = $derived(ask.preview?.missingClips ?? []);
  const create = () => live.make(missing).catch((failure: Error) => (ask.problem = failure.message));

  // What is about to be asked is looked at whenever any part of it changes, and when clips were made.
  $effect(() => {
    void live.clipsMade;
    ask.look(timeline.id, scale);
  });
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm" data-plays>
  <label class="flex items-center gap-1.5">
    on
    <select class="select select-sm w-40" bind:value={ask.machineId}>
      {#each columns as column (column.machine.id)}<option value={askedOn(column.machine)}>{column.machine.name}</option>{/each}
    </select>
  </label>
  <label class="flex items-center gap-1.5">
    trial
    <select class="select select-sm w-36" bind:value={ask.kind}>
      {#each Object.entries(kinds) as [kind, about] (kind)}<option value={kind as Kind}>{about.name}</option>{/each}
    </select>
  </label>
  <label class="flex items-center gap-1.5">
    preview scale
    <select class="select select-sm w-24" value={scale} onchange={(event) => onscale(event.currentTarget.value as Scale)}>
      {#each scales as name (name)}<option value={name}>{name}</option>{/each}
    </select>
    <kbd class="kbd kbd-xs figure">P</kbd>
  </label>
  <button class="btn btn-sm" aria-expanded={open} onclick={() => (open = !open)}>Conditions</button>
  <!-- One button all along: another in its place would lose the focus of whoever pressed it. -->
  <button class="btn btn-sm {running ? 'btn-neutral' : 'btn-primary'}" onclick={running ? onstop : onplay}>
    {running ? 'Stop' : 'Play'} <kbd class="figure text-xs">Space</kbd>
  </button>
  {#if running}<button class="btn btn-sm" onclick={onplay}>Queue</button>{/if}
</div>
<p class="mt-1 text-right text-sm" data-testid="about-to">
  <span>{kinds[ask.kind].question}</span>
  <span class="quiet">
    {#if ask.preview?.change}Played alternately as set and changed. Changed: {ask.preview.change}.{/if}
    {differences.length ? `Not bare: ${differences.join(', ')}.` : 'Bare run: every aid off.'}
    {#if ask.preview?.seconds}About {length(ask.preview.seconds)}.{/if}
  </span>
</p>
{#each ask.preview?.remarks ?? [] as remark, at (at)}<p class="mt-1 text-right text-sm text-warning">{remark}</p>{/each}
{#if missing.length && !live.making?.running}
  <p class="mt-1 text-right text-sm text-warning" data-testid="missing-clips">
    Not created yet: {missing.join(', ')}. Passages with {missing.length === 1 ? 'it' : 'them'} cannot be played here.
    <button class="link" onclick={create}>Create {missing.length === 1 ? 'it' : 'them'} first</button>; the remaining time is shown.
  </p>
{/if}
{#if ask.problem ?? ask.preview?.problem}
  <p role="alert" class="mt-1 text-right text-sm text-error">{ask.problem ?? ask.preview?.problem}</p>
{/if}
{#if open && machine}<Conditions {ask} {machine} {timeline} {scale} />{/if}
