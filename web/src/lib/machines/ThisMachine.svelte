<script lang="ts">
  import Calibration from './Calibration.svelte';
  import type { Described } from './shelf.svelte.ts';

  /** The machine that really plays, as its kernel describes it. */
  let { machine }: { machine: Described } = $props();

  const facts = $derived<[string, string][]>([
    ['processor', machine.processor.name],
    ['cores and threads', `${machine.processor.cores} / ${machine.processor.threads}`],
    ['clock', machine.processor.clockGigahertz ? `${machine.processor.clockGigahertz} GHz` : 'unknown'],
    ['memory', `${machine.memory.gigabytes} GB, ${machine.memory.inUseGigabytes} GB in use now`]
  ]);
</script>

<h2 class="text-base font-semibold">{machine.name}</h2>
<p class="quiet mb-3 max-w-prose text-sm">{machine.summary}. What the kernel does not report here is recorded with each run: devices that decode or apply effects, drives, clock and temperature.</p>
<table class="text-sm">
  <tbody>
    {#each facts as [name, value] (name)}
      <tr><th scope="row" class="quiet w-40 border-b border-base-300 py-1.5 pr-4 text-left font-normal">{name}</th><td class="border-b border-base-300 py-1.5 pr-4" data-fact={name}>{value}</td></tr>
    {/each}
  </tbody>
</table>

<Calibration />
