<script lang="ts">
  import { api, type Schemas } from '../api/client';
  import { Reading } from '../api/reading.svelte';
  import { live } from '../live.svelte';
  import { fixed } from '../words';

  let { timelineId }: { timelineId: string } = $props();
  let problem = $state<string | null>(null);
  const path = $derived({ path: { id: timelineId } });
  const reading = new Reading<Schemas['RenderView'][]>(() => {
    const params = path;
    return (signal) => api.GET('/api/timelines/{id}/renders', { params, signal });
  }, () => live.aidsMade);
  const renders = $derived(reading.value ?? []);
  const made = $derived(renders.filter((render) => render.megabytes != null));

  async function make() {
    problem = null;
    try {
      await live.render(timelineId);
    } catch (failure) {
      problem = (failure as Error).message;
    }
  }
</script>

<p class="quiet text-xs" data-testid="renders">
  {made.length} of {renders.length} passages are rendered{#if made.length}: <span class="figure">{fixed(made.reduce((sum, one) => sum + (one.megabytes ?? 0), 0), 1)}</span> MB in
    <span class="figure">{fixed(made.reduce((sum, one) => sum + (one.seconds ?? 0), 0), 1)}</span> s{/if}.
  {#if live.aids?.running}
    {live.aids.clip}, <span class="figure">{Math.round(live.aids.share * 100)}</span> %
  {:else if made.length < renders.length}
    <button class="link" onclick={make}>Render the rest</button>
  {/if}
  {#if problem ?? live.aids?.problem}<span role="alert" class="text-error">{problem ?? live.aids?.problem}</span>{/if}
</p>
