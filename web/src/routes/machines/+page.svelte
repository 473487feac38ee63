<script lang="ts">
  import { onMount } from 'svelte';
  import { api, orThrow, type Machine } from '#lib/api/client.ts';
  import { money } from '#lib/words.ts';

  let machines = $state<Machine[]>([]);
  let problem = $state<string | null>(null);
  onMount(async () => {
    try {
      machines = orThrow(await api.GET('/api/machines'));
    } catch (failure) {
      problem = (failure as Error).message;
    }
  });

  const facts: [string, (machine: Machine) => string][] = [
    ['processor', (m) => m.processor],
    ['cores and threads', (m) => `${m.cores} / ${m.threads}`],
    ['clock', (m) => (m.clockGigahertz ? `${m.clockGigahertz} GHz` : 'not told')],
    ['graphics', (m) => (m.graphics ? `${m.graphics}, ${m.graphicsMemoryGigabytes} GB` : 'none seen')],
    ['media engine', (m) => m.mediaEngineName ?? 'none seen'],
    ['it decodes', (m) => m.mediaEngine.join('; ') || '—'],
    ['memory', (m) => `${m.memoryGigabytes} GB`],
    ['media drive', (m) => (m.drive ? `${m.drive}, ${m.driveMegabytesPerSecond} MB/s` : 'not told')],
    ['cooling', (m) => (m.fanless == null ? 'not told' : m.fanless ? 'fanless' : 'fans')],
    ['price', (m) => money(m.price ?? null, m.currency)]
  ];
</script>

<svelte:head><title>Machines · Hardy Bench</title></svelte:head>
<div class="p-4">
  <h1 class="text-lg font-semibold">Machines</h1>
  <p class="quiet mb-3 text-sm">This machine really plays; stand-ins are simulated from the figures below.</p>
  {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
  <table class="w-full border-separate border-spacing-0 text-sm" data-testid="machines">
    <thead>
      <tr>
        <td class="w-40 border-b border-base-300"></td>
        {#each machines as machine (machine.id)}
          <th scope="col" class="border-b border-base-300 bg-base-200 px-3 py-2 text-left align-top" class:hatched={machine.kind === 'standIn'}>
            <span class="font-semibold">{machine.name}</span>
            <span class="quiet block font-normal">{machine.summary}</span>
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each facts as [name, of] (name)}
        <tr>
          <th scope="row" class="quiet border-b border-base-300 py-1.5 text-left font-normal">{name}</th>
          {#each machines as machine (machine.id)}
            <td class="border-b border-base-300 px-3 py-1.5 align-top" data-fact={name}>{of(machine)}</td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>
