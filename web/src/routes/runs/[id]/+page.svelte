<script lang="ts">
  import { page } from '$app/state';
  import { api, orThrow, type Schemas } from '#lib/api/client.ts';
  import MarkList from '#lib/detail/MarkList.svelte';
  import PassagePanel from '#lib/detail/PassagePanel.svelte';
  import { Reading } from '#lib/api/reading.svelte.ts';
  import ConditionsTable from '#lib/run/ConditionsTable.svelte';
  import LagSections from '#lib/run/LagSections.svelte';
  import RunFiles from '#lib/run/RunFiles.svelte';
  import { live } from '#lib/live.svelte.ts';
  import NowPlaying from '#lib/play/NowPlaying.svelte';
  import VerdictMark from '#lib/VerdictMark.svelte';
  import { fixed, limiterWord, moment } from '#lib/words.ts';

  let chosen = $state<number | null>(null);
  const id = $derived(Number(page.params.id));

  const reading = new Reading<Schemas['RunDocument']>(() => {
    const params = { path: { id } };
    return (signal) => api.GET('/api/runs/{id}', { params, signal });
  }, () => live.marked);
  const run = $derived(reading.value);

  async function again(passage?: number) {
    try {
      live.asked(orThrow(await api.POST('/api/runs/{id}/again', { params: { path: { id }, query: { passage } } })));
      said = null;
    } catch (failure) {
      said = (failure as Error).message;
    }
  }

  let said = $state<string | null>(null);
  const ended = $derived(run?.ending === 'cutShort' ? 'interrupted; saved up to its last second' : run?.ending === 'stopped' ? 'stopped early' : run?.ending);
</script>

<svelte:head><title>Run {id} · Hardy Bench</title></svelte:head>
{#if reading.problem}
  <p role="alert" class="p-4 text-error">{reading.problem} <a class="link" href="/runs">All runs</a></p>
{:else if run}
  <div class="flex h-full flex-col">
  <NowPlaying />
  <div class="flex min-h-0 flex-1">
    <div class="min-w-0 flex-1 overflow-auto p-4">
      <h1 class="text-lg font-semibold">Run {id}: {run.timeline.title} on {run.machine.name}</h1>
      <p class="mb-1 flex flex-wrap gap-4 text-sm">
        {#if !run.lags.length}<button class="btn btn-sm" onclick={() => again()}>Play again the same way</button>{/if}
        {#if chosen && !run.lags.length}<button class="btn btn-sm" onclick={() => again(chosen!)}>Play passage {chosen} again, alone</button>{/if}
        {#if run.trialId}<a class="link self-center" href="/trials/{run.trialId}">Trial {run.trialId}</a>{/if}
        <a class="link self-center" href="/timelines/{run.timeline.id}">{run.timeline.title}</a>
      </p>
      {#if said}<p role="alert" class="mb-1 text-sm text-error">{said}</p>{/if}
      <p class="quiet mb-3 text-sm" data-testid="ending">
        {moment(run.startedAt)}, {ended}, {run.settings.scale} scale{#if run.startLagMs != null}, start lag <span class="figure">{fixed(run.startLagMs, 0)}</span> ms{/if}
      </p>
      {#if run.notCounting}<p class="mb-1 text-sm font-semibold text-warning" data-testid="not-counting">{run.notCounting}</p>{/if}
      {#each run.notes as note, at (at)}<p class="mb-1 text-sm text-warning">Note: {note}.</p>{/each}
      {#if run.lags.length}
        <LagSections passages={run.passages.map((row) => ({ ...row, lags: run!.lags.filter((lag) => lag.passage === row.number) }))} />
      {:else}
        <table class="w-full text-sm">
          <thead class="bg-base-200 text-left">
            <tr>
              {#each ['no.', 'passage', 'verdict', 'headroom', 'shown a second', 'slots', 'on time', 'late', 'overdue', 'dropped', 'freeze ms', 'limiter'] as head, i (head)}
                <th scope="col" class="border-b border-base-300 px-2 py-1.5 font-semibold {i > 2 && i < 11 ? 'text-right' : ''}">{head}</th>
              {/each}
            </tr>
          </thead>
          <tbody>
            {#each run.passages as row (row.number)}
              <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-2 [&>td]:py-1 {chosen === row.number ? 'bg-secondary/15' : ''}">
                <td class="figure">{row.number}</td>
                <td><button data-prints class="link text-left" onclick={() => (chosen = row.number)}>{row.name}</button></td>
                <td><VerdictMark verdict={row.verdict ?? null} /></td>
                {#each [row.headroom == null ? '—' : `${fixed(row.headroom, 2)}×`, fixed(row.shownRate), row.slots, row.onTime, row.late, row.overdue, row.startUpDrops + row.steadyDrops, fixed(row.longestFreezeMs, 0)] as value, i (i)}
                  <td class="figure text-right">{value}</td>
                {/each}
                <td>{limiterWord(row.limiter ?? null)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
      <ConditionsTable conditions={run.conditions} />
      <div class="mt-4 grid gap-3">
        <MarkList runId={id} marks={run.marks} frame={null} />
        <RunFiles {id} byHand={run.lags.length > 0} />
      </div>
    </div>
    {#if chosen}
      <div class="side"><PassagePanel runId={id} number={chosen} onclose={() => (chosen = null)} /></div>
    {/if}
  </div>
  </div>
{/if}
