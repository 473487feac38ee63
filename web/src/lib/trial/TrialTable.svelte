<script lang="ts">
  import type { Trial } from '../api/client';
  import Comb from '../comb/Comb.svelte';
  import VerdictMark from '../VerdictMark.svelte';
  import { fixed, limiterWord } from '../words';

  type Chosen = { runId: number; number: number } | null;
  let { trial, chosen, onchoose }: { trial: Trial; chosen: Chosen; onchoose: (chosen: Chosen) => void } = $props();
  /** Without a clock nothing is held, so there is no verdict to show. */
  const unpaced = $derived(trial.trial.kind === 'capacity' || trial.trial.kind === 'export');
  const answered = $derived(trial.rows.some((row) => row.words));
</script>

<table class="w-full border-separate border-spacing-0 text-sm" data-testid="trial-table">
  <thead>
    <tr class="[&>th]:sticky [&>th]:top-0 [&>th]:border-b [&>th]:border-base-300 [&>th]:bg-base-200 [&>th]:px-2.5 [&>th]:py-1.5 [&>th]:text-left [&>th]:align-bottom">
      <th scope="col" class="w-[26%] min-w-48 font-semibold">Passage</th>
      {#if answered}<th scope="col" class="w-[22%] min-w-56 font-semibold">Answer</th>{/if}
      {#each trial.runs as run (run.runId)}
        <th scope="col" class="min-w-28 font-semibold" style:width="{50 / trial.runs.length}%" class:hatched={trial.trial.standIn}>
          {run.label === '1 of 1' ? 'the run' : run.label}
          <a class="link quiet block text-xs font-normal" href="/runs/{run.runId}">run {run.runId}</a>
        </th>
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each trial.rows as row (row.number)}
      <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:align-top">
        <td class="px-2.5 py-1"><span class="flex gap-2 leading-tight"><span class="figure w-5 shrink-0 text-right font-semibold">{row.number}</span>{row.question}</span></td>
        {#if answered}<td class="px-2.5 py-1">{row.words}</td>{/if}
        {#each trial.runs as run, index (run.runId)}
          {@const cell = row.cells[index]}
          <td class:hatched={trial.trial.standIn}>
            {#if cell?.slots}
              <button
                data-prints
                class="block w-full px-2.5 py-1 text-left leading-[1.15rem] hover:bg-secondary/10 {chosen?.runId === run.runId && chosen.number === row.number
                  ? 'bg-secondary/15 outline-2 -outline-offset-2 outline-secondary'
                  : ''}"
                onclick={() => onchoose({ runId: run.runId, number: row.number })}
              >
                <span class="sr-only">Passage {row.number}, {run.label}:</span>
                <Comb teeth={cell.comb} frameMs={1000 / run.framesPerSecond} class="h-3.5 w-full" />
                <span class="flex flex-wrap items-baseline justify-between gap-x-1">
                  {#if !unpaced || cell.verdict}<VerdictMark verdict={cell.verdict ?? null} />{/if}
                  <span class="figure whitespace-nowrap">{fixed(cell.shownRate)}{#if unpaced}{" "}<span class="quiet text-xs">a second</span>{/if}</span>
                </span>
                <span class="quiet block text-xs">{limiterWord(cell.limiter ?? null)}</span>
              </button>
            {:else}
              <span class="quiet block px-2.5 py-2">—</span>
            {/if}
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
