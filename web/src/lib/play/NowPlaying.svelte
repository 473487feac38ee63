<script lang="ts">
  import { live } from '../live.svelte';

  let { framesPerSecond }: { framesPerSecond: number } = $props();
  const play = $derived(live.play?.running ? live.play : null);
  const left = $derived(play ? Math.ceil((play.of - play.frames) / framesPerSecond) : 0);
  const worth = $derived(live.loads.filter((load) => load.unit === '%' || load.unit === 'cores'));
  const dropped = $derived(play ? play.teeth.split('d').length - 1 : 0);
</script>

{#if play}
  <section aria-label="Playing now" class="flex items-center gap-4 border-b border-base-300 bg-secondary/10 px-4 py-1.5 text-sm" data-testid="now-playing">
    {#if live.picture}<img src={live.picture} alt="The frame on screen" class="h-16 border border-base-300" />{/if}
    <span class="figure whitespace-nowrap">{play.frames}<span class="quiet"> of {play.of} slots</span></span>
    <span class="figure whitespace-nowrap">{dropped}<span class="quiet"> dropped</span></span>
    <span class="figure whitespace-nowrap">{left}<span class="quiet"> s to go</span></span>
    <div class="flex flex-1 flex-wrap items-center justify-end gap-x-4 gap-y-0.5">
      {#each worth as load (load.group + load.name)}
        <span class="flex items-center gap-1.5 text-xs">
          {load.name}
          {#if load.unit === '%'}
            <span class="inline-block h-2 w-14 bg-base-300" aria-hidden="true"><span class="block h-full bg-base-content/70" style:width="{Math.min(100, load.value)}%"></span></span>
          {/if}
          <span class="figure inline-block w-9 text-right">{load.unit === '%' ? Math.round(load.value) : load.value.toFixed(2)}</span>
          <span class="quiet">{load.unit}</span>
        </span>
      {/each}
    </div>
  </section>
{/if}
