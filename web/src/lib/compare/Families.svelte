<script lang="ts">
  import { api, type Schemas } from '../api/client';
  import { Reading } from '../api/reading.svelte';
  import { live } from '../live.svelte';
  import { mostSides } from './sides';

  /** Listed machines that differ in one thing only: what is gained along it is a comparison away. */
  const timelines = new Reading<Schemas['TimelineView'][]>(() => (signal) => api.GET('/api/timelines', { signal }));
  let wanted = $state<string | null>(null);
  const timeline = $derived(wanted ?? timelines.value?.[0]?.id ?? null);
  const reading = new Reading<Schemas['FamilyView'][]>(() => {
    if (!timeline) return null;
    const params = { query: { timeline } };
    return (signal) => api.GET('/api/grid/families', { params, signal });
  }, () => live.ended);

  const address = (runs: number[]) => `/compare?${runs.slice(0, mostSides).map((run) => `run=${run}`).join('&')}`;
</script>

{#if timelines.value?.length}
  <section class="px-4 pt-4 text-sm" aria-labelledby="families" data-testid="families">
    <h2 id="families" class="font-semibold">One thing changed</h2>
    <p class="quiet mb-2 flex flex-wrap items-center gap-2">
      Machines that have played
      <select class="select select-xs w-48" aria-label="Timeline" value={timeline} onchange={(event) => (wanted = event.currentTarget.value)}>
        {#each timelines.value as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
      </select>
      bare and differ in one quantity only, such as cores or memory.
    </p>
    {#if reading.problem}
      <p role="alert" class="text-error">{reading.problem}</p>
    {:else if reading.value}
      <ul class="grid max-w-4xl gap-1">
        {#each reading.value as family (family.runs.join())}
          <li class="grid grid-cols-[9rem_1fr] gap-x-3 border-b border-base-200 py-1.5">
            <a class="link self-start font-semibold" href={address(family.runs)}>{family.what}</a>
            <ul class="flex flex-wrap gap-x-6 gap-y-0.5">
              {#each family.values.slice(0, mostSides) as value, at (value)}
                <li><span class="font-semibold">{value}</span> <span class="quiet">{family.machines[at]}</span></li>
              {/each}
              {#if family.values.length > mostSides}<li class="quiet">and {family.values.length - mostSides} more</li>{/if}
            </ul>
          </li>
        {:else}
          <li class="quiet">None. Duplicate a machine under <a class="link" href="/machines">Machines</a>, change one part, and play it.</li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}
