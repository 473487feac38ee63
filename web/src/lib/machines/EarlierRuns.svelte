<script lang="ts">
  import { api, orThrow, type Schemas } from '#lib/api/client.ts';
  import { live } from '#lib/live.svelte.ts';
  import { moment } from '#lib/words.ts';

  /** Runs that the machine played before it was changed, or that another computer played with this data. They do not count for it. */
  let { id, version = 0 }: { id: string; version?: number } = $props();

  let earlier = $state<Schemas['EarlierRunsView'][]>([]);

  const elsewhere = $derived(earlier.some((runs) => runs.elsewhere));

  // Read again when a run has ended or the machine was saved.
  $effect(() => {
    void [live.ended, version];
    void api.GET('/api/machines/{id}/earlier', { params: { path: { id } } }).then((answer) => (earlier = orThrow(answer)), () => (earlier = []));
  });
</script>

{#if earlier.length}
  <section class="mt-4 max-w-prose text-sm" aria-label="Earlier runs" data-testid="earlier-runs">
    <h3 class="font-semibold">{elsewhere ? 'Runs of other computers and before a change' : 'Runs before this machine was changed'}</h3>
    <p class="quiet">They stay in <a class="link" href="/runs">the list of runs</a>, but no sheet, grid or advice counts them for the machine as it is now.</p>
    <ul class="mt-1">
      {#each earlier as runs (`${runs.elsewhere} ${runs.last}`)}
        <li class="border-t border-base-300 py-1"><span class="figure">{runs.runs}</span> {runs.runs === 1 ? 'run' : 'runs'}, the last {moment(runs.last)}. {runs.elsewhere ? `On “${runs.elsewhere}”. Different here: ` : 'Changed since: '}{runs.changes.join('; ') || (runs.elsewhere ? 'no part' : 'measured costs')}.</li>
      {/each}
    </ul>
  </section>
{/if}
