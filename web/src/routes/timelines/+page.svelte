<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { api, orThrow, type Schemas } from '#lib/api/client.ts';

  let timelines = $state<Schemas['TimelineView'][] | null>(null);
  let problem = $state<string | null>(null);

  onMount(async () => {
    try {
      timelines = orThrow(await api.GET('/api/timelines'));
      if (timelines.length === 1) await goto(`/timelines/${timelines[0].id}`, { replaceState: true });
    } catch (failure) {
      problem = String(failure);
    }
  });
</script>

<svelte:head><title>Timelines · Hardy Bench</title></svelte:head>
<div class="p-4">
  <h1 class="mb-3 text-lg font-semibold">Timelines</h1>
  {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
  {#each timelines ?? [] as timeline (timeline.id)}
    <p><a class="link" href="/timelines/{timeline.id}">{timeline.title}</a>, {timeline.passages.length} passages, {timeline.raster} {timeline.rate}</p>
  {/each}
</div>
