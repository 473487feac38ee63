<script lang="ts">
  import { askedOn } from '../play/ask.svelte';
  import type { Column, Sheet } from '../api/client';
  import { live } from '../live.svelte';
  import ColumnHead from './ColumnHead.svelte';
  import PassageHead from './PassageHead.svelte';
  import ResultCell from './ResultCell.svelte';

  type Chosen = { machineId: string; number: number } | null;
  let {
    sheet,
    chosen,
    scale,
    onchoose,
    onplay,
    onpick
  }: {
    sheet: Sheet;
    chosen: Chosen;
    scale: string;
    onchoose: (chosen: Chosen) => void;
    onplay: (machineId: string) => void;
    onpick: (column: Column, runId: number | null) => void;
  } = $props();

  const playing = $derived(live.play?.running && live.play.timelineId === sheet.timeline.id && live.play.scale === scale ? live.play : null);
  const litRow = $derived(
    playing && !playing.byHand ? sheet.timeline.passages.findIndex((p) => playing.fromFrame + playing.frames < p.startFrame + p.frameCount) : -1
  );
  let table: HTMLTableElement;

  /** The part of the running play's teeth that belongs to a passage. */
  function growing(column: Column, row: number) {
    if (!playing || playing.byHand || playing.machineId !== column.machine.id) return null;
    const { startFrame, frameCount } = sheet.timeline.passages[row];
    const from = startFrame - playing.fromFrame;
    return from < 0 ? '' : playing.teeth.slice(from, from + frameCount);
  }

  const by: Record<string, [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

  /** While nothing else has the focus, an arrow goes to the chosen cell, or to the first. */
  function enter(event: KeyboardEvent) {
    const elsewhere = document.activeElement && document.activeElement !== document.body && document.activeElement.id !== 'content';
    if (!(event.key in by) || elsewhere || event.ctrlKey || event.altKey || event.metaKey) return;
    const cell = table.querySelector<HTMLButtonElement>('[data-cell][aria-pressed=true]') ?? table.querySelector<HTMLButtonElement>('[data-cell]:not(:disabled)');
    if (!cell) return;
    event.preventDefault();
    cell.focus();
  }

  function move(event: KeyboardEvent, row: number, column: number) {
    if (!(event.key in by)) return;
    event.preventDefault();
    const [down, right] = by[event.key];
    table.querySelector<HTMLButtonElement>(`[data-cell="${row + down}-${column + right}"]`)?.focus();
  }
</script>

<svelte:window onkeydown={enter} />

<!-- Columns are alike, and none narrower than its figures: a sheet of many is moved sideways. -->
<table bind:this={table} class="w-full table-fixed border-separate border-spacing-0" style:min-width="{16 + 12 * sheet.columns.length}rem" data-testid="sheet">
  <thead>
    <tr>
      <th scope="col" class="sticky top-0 left-0 z-20 w-[25%] min-w-60 border-r border-b border-base-300 bg-base-200 px-3 py-1.5 text-left align-bottom text-sm font-semibold">
        Passage <span class="quiet font-normal">and load estimate</span>
      </th>
      {#each sheet.columns as column (column.machine.id)}
        <ColumnHead {column} running={playing?.machineId === column.machine.id} onplay={() => onplay(askedOn(column.machine))} onpick={(runId) => onpick(column, runId)} />
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each sheet.timeline.passages as passage, row (passage.number)}
      <tr class={row === litRow ? 'bg-secondary/10' : ''}>
        <PassageHead {passage} lit={row === litRow} />
        {#each sheet.columns as column, index (column.machine.id)}
          <ResultCell
            cell={column.cells[row] ?? null}
            growing={growing(column, row)}
            standIn={column.machine.kind === 'standIn'}
            counts={!column.notCounting}
            frames={passage.frameCount}
            rate={sheet.timeline.framesPerSecond}
            place="{row}-{index}"
            label="Passage {passage.number} on {column.machine.name}"
            chosen={chosen?.machineId === column.machine.id && chosen.number === passage.number}
            onchoose={() => onchoose({ machineId: column.machine.id, number: passage.number })}
            onmove={(event) => move(event, row, index)}
          />
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
