<script lang="ts">
  import { tick } from 'svelte';
  import { api, type PassageDetail } from '../api/client';
  import { Reading } from '../api/reading.svelte';
  import VerdictMark from '../VerdictMark.svelte';
  import { live } from '../live.svelte';
  import { fixed } from '../words';
  import CountsTable from './CountsTable.svelte';
  import FrameComb from './FrameComb.svelte';
  import PartsTable from './PartsTable.svelte';
  import LoadCharts from './LoadCharts.svelte';
  import { givesFocusBack } from '../focus';
  import { isTyping } from '../keys';
  import RunFiles from '../run/RunFiles.svelte';
  import MarkList from './MarkList.svelte';

  let { runId, number, onclose }: { runId: number; number: number; onclose: () => void } = $props();
  const reading = new Reading<PassageDetail>(() => {
    const params = { path: { id: runId, number } };
    return (signal) => api.GET('/api/runs/{id}/passages/{number}', { params, signal });
  }, () => live.marked);
  const detail = $derived(reading.value);
  const problem = $derived(reading.problem);

  let panel: HTMLElement;
  /** What was chosen to open it. */
  let cameFrom = $state.raw<HTMLElement | null>(null);
  /** Opened by a key: the keys go on at the comb. */
  let goesOn = false;
  let tooth = $state(0);
  const marked = $derived(detail?.marks.map((mark) => (mark.atMs - detail!.from) / 1000) ?? []);

  $effect(() => {
    void [runId, number];
    const at = document.activeElement as HTMLElement | null;
    if (at && !panel.contains(at)) {
      cameFrom = at;
      goesOn = at.matches(':focus-visible');
    }
    tooth = 0;
  });

  $effect(() => {
    if (!detail || !goesOn) return;
    goesOn = false;
    void tick().then(() => panel.querySelector<HTMLElement>('[role=slider]')?.focus());
  });
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && !isTyping(event) && onclose()} />

<aside bind:this={panel} use:givesFocusBack={cameFrom} aria-label="Passage in full" class="flex h-full flex-col gap-3 overflow-auto border-l border-base-300 bg-base-100 px-4 py-3" data-testid="detail">
  {#if problem}
    <p role="alert" class="text-error">{problem}</p>
    <button class="btn btn-ghost btn-xs self-start" onclick={onclose}>Close <kbd class="figure">Esc</kbd></button>
  {:else if detail}
    <header class="flex items-start justify-between gap-2">
      <div>
        <h2 class="leading-tight font-semibold">{detail.row.number}. {detail.row.name}</h2>
        <p class="quiet text-sm">{detail.machineName}, run {detail.runId}{detail.standIn ? ', simulated' : ''}</p>
      </div>
      <button class="btn btn-ghost btn-xs" onclick={onclose}>Close <kbd class="figure">Esc</kbd></button>
    </header>
    <p class="text-lg">
      <VerdictMark verdict={detail.row.verdict ?? null} />
      {#if detail.row.headroom != null}<span class="figure ml-2">{fixed(detail.row.headroom, 2)}×</span> <span class="quiet text-sm">the required rate{detail.row.verdict ? ';' : ', without a clock'}</span>{/if}
      {#if detail.row.verdict || detail.row.headroom == null}
        <span class="figure ml-1">{fixed(detail.row.shownRate)}</span>
        <span class="quiet text-sm">of {fixed(1000 / detail.frameMs, 0)} frames a second shown</span>
      {/if}
    </p>
    {#if detail.row.evidence}
      <div class="border-l-2 border-base-content/40 pl-3 text-sm">
        <p>{detail.row.evidence}</p>
        {#if detail.row.secondEvidence}<p class="mt-1">{detail.row.secondEvidence}</p>{/if}
        {#if detail.helps}<p class="mt-1"><b class="font-semibold">Would help:</b> {detail.helps}</p>{/if}
        {#if detail.helpsNot}<p class="mt-1"><b class="font-semibold">Would not:</b> {detail.helpsNot}</p>{/if}
      </div>
    {/if}
    {#if detail.row.verdict === 'holds' && detail.row.headroom != null && detail.row.headroom < 0.97}
      <p class="text-sm">It holds because it is short: frames that were prepared before it began make up for what the machine lacks.</p>
    {/if}
    {#if detail.notCounting}<p class="text-sm font-semibold text-warning" data-testid="not-counting">{detail.notCounting}</p>{/if}
    {#each detail.notes as note, at (at)}<p class="text-sm text-warning">Note: {note}.</p>{/each}
    <FrameComb frames={detail.frames} frameMs={detail.frameMs} marks={detail.marks} bind:chosen={tooth} />
    <MarkList runId={detail.runId} marks={detail.marks} frame={detail.frames.frame[Math.min(tooth, detail.frames.frame.length - 1)] ?? null} />
    <LoadCharts loads={detail.loads} seconds={(detail.frames.frame.length * detail.frameMs) / 1000} {marked} />
    <PartsTable parts={detail.row.parts} decodedOn={detail.decodedOn} />
    <CountsTable row={detail.row} />
    <RunFiles id={detail.runId} />
  {:else}
    <p class="quiet">Reading…</p>
  {/if}
</aside>
