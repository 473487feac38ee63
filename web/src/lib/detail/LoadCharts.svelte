<script lang="ts">
  import type { Schemas } from '../api/client';
  import LoadChart from './LoadChart.svelte';

  let { loads, seconds, marked }: { loads: Schemas['LoadSeries'][]; seconds: number; marked: number[] } = $props();
  // A drive or a swap that never does anything would only push the rest down.
  const groups = $derived([
    ...Map.groupBy(
      loads.filter((series) => ['Processor', "Player's work", 'Heat', 'Clock', 'Memory'].includes(series.group) || series.values.some((v) => v > 0)),
      (series) => series.group
    )
  ]);
</script>

{#each groups as [group, series] (group)}
  <LoadChart title={group} {series} {seconds} {marked} />
{/each}
{#if !loads.length}<p class="quiet text-sm">No loads could be read during this passage.</p>{/if}
