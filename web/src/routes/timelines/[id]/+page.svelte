<script lang="ts">
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { address } from '#lib/address.ts';
  import { api, type Column, type Scale } from '#lib/api/client.ts';
  import { Reading } from '#lib/api/reading.svelte.ts';
  import { isTyping } from '#lib/keys.ts';
  import { live } from '#lib/live.svelte.ts';
  import { scales } from '#lib/words.ts';
  import PassagePanel from '#lib/detail/PassagePanel.svelte';
  import { Ask } from '#lib/play/ask.svelte.ts';
  import { fromAddress, toAddress } from '#lib/play/askAddress.ts';
  import MachineChoice from '#lib/sheet/MachineChoice.svelte';
  import Legend from '#lib/sheet/Legend.svelte';
  import NowPlaying from '#lib/play/NowPlaying.svelte';
  import PlayBar from '#lib/play/PlayBar.svelte';
  import SheetFoot from '#lib/sheet/SheetFoot.svelte';
  import SheetTable from '#lib/sheet/SheetTable.svelte';

  const id = $derived(page.params.id!);
  const scale = $derived((scales.find((name) => name === page.url.searchParams.get('scale')) ?? 'full') as Scale);
  const chosen = $derived.by(() => {
    const [machineId, number] = page.url.searchParams.get('cell')?.split(':') ?? [];
    return machineId && Number(number) ? { machineId, number: Number(number) } : null;
  });
  // A run stays picked while another scale is looked at, and is there again on the way back.
  const picked = $derived(page.url.searchParams.getAll('run').join());
  const reading = new Reading(() => {
    const run = picked.split(',').filter(Boolean).map(Number).filter(Number.isSafeInteger);
    const params = { path: { id }, query: { scale, run } };
    return (signal) => api.GET('/api/timelines/{id}/sheet', { params, signal });
  }, () => [live.ended, live.clipsMade]);
  const sheet = $derived(reading.value);
  const problem = $derived(reading.problem);
  const ask = new Ask();
  fromAddress(ask, page.url.searchParams);
  if (ask.program) void ask.readPrograms();
  $effect(() => {
    const wanted = toAddress(ask);
    if (untrack(() => Object.entries(wanted).some(([name, value]) => page.url.searchParams.get(name) !== value))) address(wanted, true);
  });

  // A run that was asked for here under conditions is shown when it has ended, as bare ones are anyway; its head says what it was played under.
  let shownRun: number | null = null;
  $effect(() => {
    const ended = live.answered;
    const column = ended && sheet?.columns.find((one) => one.machine.id === ended.machineId);
    if (!ended?.runId || ended.kind !== 'play' || ended.timelineId !== id || shownRun === ended.runId || !column) return;
    const run = column.runs.find((one) => one.id === ended.runId);
    if (!run) return;
    shownRun = ended.runId;
    if (run.differences.length) untrack(() => pick(column, ended.runId!));
  });
  const chosenRun = $derived(sheet?.columns.find((column) => column.machine.id === chosen?.machineId)?.runId ?? null);
  const unknownCell = $derived(
    sheet && chosen && !(chosenRun && chosen.number <= sheet.timeline.passages.length) && !live.play?.running
      ? `There is no result of passage ${chosen.number} on “${sheet.columns.find((column) => column.machine.id === chosen?.machineId)?.machine.name ?? chosen.machineId}” to show.`
      : null
  );

  function pick(column: Column, runId: number | null) {
    const url = new URL(page.url.href);
    for (const run of column.runs) url.searchParams.delete('run', `${run.id}`);
    if (runId) url.searchParams.append('run', `${runId}`);
    void goto(url, { reset: false });
  }

  const changeScale = (to: Scale) => address({ scale: to === 'full' ? null : to });

  const play = (on = ask.machineId) => ask.play(id, scale, on);
  const stop = () => api.DELETE('/api/play');

  function key(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    // A list that was just chosen from, and a cell, which Enter opens, leave Space to the playing.
    const playsOn = target.closest('[data-cell]') || target.matches('[data-plays] select');
    if ((isTyping(event) && !(playsOn && event.key === ' ')) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === ' ' && (playsOn || !target.closest('a, button, summary, [role=slider]:not([aria-label=Frame])'))) {
      event.preventDefault();
      void (live.play?.running ? stop() : play());
    } else if (event.key === 'p' && !live.play?.running) {
      changeScale(scales[(scales.indexOf(scale) + 1) % scales.length]);
    }
  }
</script>

<svelte:window onkeydown={key} />
<svelte:head><title>{sheet?.timeline.title ?? 'Timeline'} · Hardy Bench</title></svelte:head>

{#if problem}
  <p role="alert" class="p-4 text-error">{problem} <a class="link" href="/timelines">All timelines</a></p>
{:else if sheet}
  <div class="flex h-full flex-col">
    <div class="border-b border-base-300 px-4 py-2">
      <div class="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h1 class="text-lg font-semibold">{sheet.timeline.title}</h1>
        <span class="quiet text-sm">{sheet.timeline.raster} {sheet.timeline.rate}, {sheet.timeline.passages.length} {sheet.timeline.passages.length === 1 ? 'passage' : 'passages'}, <span class="figure">{sheet.timeline.seconds}</span> s <a class="link ml-1" href="/timelines/{id}/passages">Edit</a> <MachineChoice timelineId={id} columns={sheet.columns} onchange={() => reading.again()} /></span>
        <div class="ml-auto">
          <PlayBar {ask} columns={sheet.columns} {scale} timeline={{ id, effects: sheet.timeline.effects }} onscale={changeScale} onplay={() => play()} onstop={stop} />
        </div>
      </div>
      {#if sheet.timeline.about}<p class="quiet mt-1 text-sm" data-testid="about">{sheet.timeline.about}</p>{/if}
    </div>
    <NowPlaying />
    <Legend />
    {#if unknownCell}
      <p role="status" class="border-b border-base-300 px-4 py-1 text-sm text-warning" data-testid="unknown-cell">{unknownCell} <button class="link" onclick={() => address({ cell: null })}>Close</button></p>
    {/if}
    <div class="relative flex min-h-0 flex-1">
      <div class="min-w-0 flex-1 overflow-auto">
        <SheetTable {sheet} {chosen} {scale} onplay={(on) => ask.play(id, scale, on, 'play')} onpick={pick} onchoose={(cell) => address({ cell: cell && `${cell.machineId}:${cell.number}` })} />
        <SheetFoot {sheet} {scale} onplay={(on, at) => (at && at !== scale ? changeScale(at) : play(on))} />
      </div>
      {#if chosen && chosenRun && !unknownCell}
        <div class="side">
          <PassagePanel runId={chosenRun} number={chosen.number} onclose={() => address({ cell: null })} />
        </div>
      {/if}
    </div>
  </div>
{:else}
  <p class="quiet p-4">Reading…</p>
{/if}
