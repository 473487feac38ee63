<script lang="ts">
  import { live } from '../live.svelte';
  import { scales } from '../words';
  import type { Column, Policy, Scale } from '../api/client';

  let {
    columns,
    machineId = $bindable(),
    scale,
    policy = $bindable(),
    pictures = $bindable(),
    problem,
    onscale,
    onplay,
    onstop
  }: {
    columns: Column[];
    machineId: string;
    scale: Scale;
    policy: Policy;
    pictures: boolean;
    problem: string | null;
    onscale: (scale: Scale) => void;
    onplay: () => void;
    onstop: () => void;
  } = $props();

  const running = $derived(live.play?.running ? live.play : null);
  /** What differs from a bare run, in words. */
  const aids = $derived(
    [scale !== 'full' && `${scale} scale`, policy === 'keepFrames' && 'every frame shown', pictures && 'pictures cost some of what is measured'].filter(Boolean)
  );
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
  <label class="flex items-center gap-1.5">
    on
    <select class="select select-sm w-44" bind:value={machineId} disabled={!!running}>
      {#each columns as column (column.machine.id)}<option value={column.machine.id}>{column.machine.name}</option>{/each}
    </select>
  </label>
  <label class="flex items-center gap-1.5">
    preview scale
    <select class="select select-sm w-28" value={scale} disabled={!!running} onchange={(event) => onscale(event.currentTarget.value as Scale)}>
      {#each scales as name (name)}<option value={name}>{name}</option>{/each}
    </select>
    <kbd class="kbd kbd-xs figure">P</kbd>
  </label>
  <label class="flex items-center gap-1.5">
    if late
    <select class="select select-sm w-40" bind:value={policy} disabled={!!running}>
      <option value="keepTime">drop, keep time</option>
      <option value="keepFrames">keep every frame</option>
    </select>
  </label>
  <label class="flex items-center gap-1.5">
    <input type="checkbox" class="checkbox checkbox-sm" bind:checked={pictures} disabled={!!running} /> pictures
  </label>
  {#if running}
    <button class="btn btn-neutral btn-sm" onclick={onstop}>Stop <kbd class="figure text-xs">Space</kbd></button>
  {:else}
    <button class="btn btn-primary btn-sm" onclick={onplay}>Play <kbd class="figure text-xs">Space</kbd></button>
    <span class="quiet">{aids.length ? `Not bare: ${aids.join(', ')}.` : 'Bare run: every aid off.'}</span>
  {/if}
</div>
{#if problem}
  <p role="alert" class="mt-1 text-sm text-error">{problem}</p>
{/if}
