<script lang="ts">
  import type { Schemas } from '../api/client';
  import LagTable from './LagTable.svelte';

  let { passages }: { passages: { number: number; name: string; words?: string; lags: Schemas['LagRow'][] }[] } = $props();
</script>

{#each passages.filter((passage) => passage.lags.length) as passage (passage.number)}
  <section class="border-b border-base-300 px-4 py-2">
    <h2 class="flex flex-wrap items-baseline gap-x-3 text-sm">
      <span class="figure font-semibold">{passage.number}</span> <b class="font-semibold">{passage.name}</b>
      <span class="quiet ml-auto">{passage.words ?? ''}</span>
    </h2>
    <LagTable lags={passage.lags} />
  </section>
{/each}
