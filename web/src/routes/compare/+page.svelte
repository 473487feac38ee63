<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, type Schemas } from '#lib/api/client.ts';
  import { Reading } from '#lib/api/reading.svelte.ts';
  import Comb from '#lib/comb/Comb.svelte';
  import AxisCurve from '#lib/compare/AxisCurve.svelte';
  import Families from '#lib/compare/Families.svelte';
  import InStep from '#lib/compare/InStep.svelte';
  import MachineChoice from '#lib/compare/MachineChoice.svelte';
  import RunChoice from '#lib/compare/RunChoice.svelte';
  import SideHead from '#lib/compare/SideHead.svelte';
  import { tableText } from '#lib/tableText.ts';
  import VerdictMark from '#lib/VerdictMark.svelte';
  import { fixed, limiterWord } from '#lib/words.ts';

  let said = $state('');

  const runs = $derived(page.url.searchParams.getAll('run').map(Number).filter(Number.isSafeInteger));
  const query = $derived(runs.map((run) => `run=${run}`).join('&'));
  const reading = new Reading<Schemas['ComparisonView']>(() => {
    const params = { query: { run: runs } };
    return runs.length ? (signal) => api.GET('/api/compare', { params, signal }) : null;
  });
  const comparison = $derived(reading.problem ? null : reading.value);
  const inStep = $derived(comparison?.rows.find((row) => row.number === Number(page.url.searchParams.get('passage'))) ?? null);

  /** Of every passage, what each point of the axis shows of it. */
  const shares = (of: Schemas['ComparisonView'], axis: Schemas['AxisView']) =>
    of.rows.map((row) => ({
      number: row.number,
      shares: axis.points.map((point) => {
        const cell = row.cells[point.side]?.cell;
        return cell?.slots ? cell.shownRate / of.sides[point.side].framesPerSecond : null;
      })
    }));

  function address(wanted: number[], passage: number | null = null) {
    const search = new URLSearchParams([...wanted.map((run) => ['run', `${run}`]), ...(passage ? [['passage', `${passage}`]] : [])]);
    void goto(`?${search}`, { reset: false });
  }

  async function copy() {
    const heads = ['passage', 'question', ...comparison!.sides.flatMap((side) => [`${side.machine}, run ${side.runId}`, 'beside the base'])];
    const lines = comparison!.rows.map((row) => [row.number, row.question, ...row.cells.flatMap((one) => [one ? `${one.cell.verdict ?? 'no verdict'}, ${fixed(one.cell.shownRate)}` : '', one?.beside ?? ''])]);
    await navigator.clipboard.writeText(tableText([heads, ...lines], '\t'));
    said = 'Copied as a table.';
  }
</script>

<svelte:head><title>Compare · Hardy Bench</title></svelte:head>
<div class="flex flex-wrap items-center gap-3 px-4 py-3 text-sm">
  <h1 class="text-lg font-semibold">Compare <span class="quiet text-sm font-normal">runs side by side; the first is the baseline</span></h1>
  <span class="ml-auto flex items-center gap-3 print:hidden">
    {#if comparison}
      {#if said}<span role="status" class="quiet">{said}</span>{/if}
      <button class="link" onclick={copy}>copy as a table</button>
      <span class="quiet">export as <a class="link mx-1" href="/api/compare/table.csv?{query}" download>csv</a><a class="link" href="/api/compare?{query}" download="comparison.json">json</a></span>
    {/if}
    <a class="link" href="/compare/grid">All machines in a grid</a>
    <MachineChoice onchoose={(chosen) => address(chosen)} />
    <RunChoice {runs} onchoose={(chosen) => address(chosen)} />
  </span>
</div>
{#if reading.problem}
  <p role="alert" class="px-4 text-error">{reading.problem}</p>
{:else if runs.length === 0}
  <p class="px-4 text-sm">Choose two machines or more that have played the same timeline, or single runs: one machine with one part or one setting changed, or the same twice to see the noise. Runs can also be selected under <a class="link" href="/runs">Runs</a>.</p>
  <Families />
{:else if comparison}
  <div class="grid gap-1 px-4 pb-3 text-sm" data-testid="sums">
    {#if !comparison.sameTimeline}<p role="status" class="text-warning">These runs are of different timelines. Only identical passages are compared.</p>{/if}
    {#if comparison.axis}
      <p class="font-semibold" data-testid="axis">{comparison.axis.words}</p>
    {/if}
    <div class={comparison.axis ? 'grid items-start gap-x-8 gap-y-1 lg:grid-cols-2' : ''}>
      {#if comparison.axis}<AxisCurve axis={comparison.axis} passages={shares(comparison, comparison.axis)} />{/if}
      <div class="grid gap-1">{#each comparison.sides.slice(1) as side (side.runId)}<p>{side.sum}</p>{/each}</div>
    </div>
  </div>
  <table class="w-full table-fixed border-separate border-spacing-0" data-testid="comparison">
    <thead>
      <tr>
        <th scope="col" class="w-52 border-b border-base-300 bg-base-200 px-3 py-1.5 text-left align-bottom text-sm font-semibold">Passage</th>
        {#each comparison.sides as side, at (side.runId)}
          <SideHead {side} isBase={at === 0} onbase={() => address([side.runId, ...runs.filter((run) => run !== side.runId)])} onremove={() => address(runs.filter((run) => run !== side.runId))} />
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each comparison.rows as row (row.number)}
        <tr class={row === inStep ? 'bg-secondary/10' : ''}>
          <th scope="row" class="border-b border-base-300 px-3 py-1 text-left align-top text-sm font-normal">
            <span class="font-semibold">{row.number}</span> {row.question}
            <button class="link block text-xs print:hidden" onclick={() => address(runs, row === inStep ? null : row.number)} aria-pressed={row === inStep} aria-label="Passage {row.number} in step">in step</button>
          </th>
          {#each row.cells as one, at (comparison.sides[at].runId)}
            <td class="border-b border-base-300 px-3 py-1 align-top" class:hatched={comparison.sides[at].isStandIn}>
              {#if one && one.cell.slots}
                <Comb teeth={one.cell.comb} frames={row.frameCount} frameMs={1000 / comparison.sides[at].framesPerSecond} class="h-3.5 w-full" />
                <span class="flex items-baseline justify-between gap-1">
                  <VerdictMark verdict={one.cell.verdict ?? null} />
                  <span class="figure text-sm">{fixed(one.cell.shownRate)} <span class="quiet text-xs">of {comparison.sides[at].framesPerSecond}</span></span>
                </span>
                <span class="flex justify-between gap-2 text-xs">
                  <span class="quiet">{one.cell.limiter ? limiterWord(one.cell.limiter) : one.cell.headroom && !comparison.sides[at].notCounting ? `${fixed(one.cell.headroom)}× headroom` : ''}</span>
                  {#if at > 0}<span class={one.isReal === true ? 'font-semibold' : 'quiet'} data-beside>{one.beside}</span>{/if}
                </span>
              {:else}<span class="quiet text-sm">not played</span>{/if}
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
  {#if inStep}<InStep row={inStep} sides={comparison.sides} onclose={() => address(runs)} />{/if}
{:else}
  <p class="quiet px-4">Reading…</p>
{/if}
