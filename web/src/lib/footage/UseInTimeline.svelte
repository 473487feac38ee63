<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, orThrow, type Schemas } from '../api/client';
  import { Reading } from '../api/reading.svelte';

  /** Adds a passage with a clip to a timeline that is chosen, and opens it there. */
  let { clipId }: { clipId: string } = $props();
  const timelines = new Reading<Schemas['TimelineView'][]>(() => (signal) => api.GET('/api/timelines', { signal }));
  let problem = $state<string | null>(null);
  // No id of a timeline has a plus in it.
  const fresh = '+';

  async function use(chosen: string) {
    problem = null;
    try {
      const id = chosen === fresh ? orThrow(await api.POST('/api/timelines', { body: { title: clipId } })).timeline.id : chosen;
      await goto(`/timelines/${id}/passages?add=${encodeURIComponent(clipId)}`);
    } catch (failure) {
      problem = (failure as Error).message;
    }
  }
</script>

<label class="flex items-center gap-2">use in
  <select class="select select-sm min-w-0 flex-1" aria-label="Use in a timeline" value="" onchange={(event) => { void use(event.currentTarget.value); event.currentTarget.value = ''; }}>
    <option value="" disabled>a timeline…</option>
    {#each timelines.value ?? [] as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
    <option value={fresh}>a new timeline</option>
  </select>
</label>
{#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
