<script lang="ts">
  import { chips, move } from './edits';
  import type { Editor } from './editor.svelte';

  let {
    editor,
    chosen,
    lead,
    onchoose,
    onextend
  }: { editor: Editor; chosen: number[]; lead: number; onchoose: (rows: number[]) => void; onextend: (to: number) => void } = $props();
  // Only rows in sight are drawn, so that thousands cost no more than a screenful.
  const RowHeight = 46;
  /** Of the heading and of every row. */
  const columns = 'grid grid-cols-[2rem_minmax(0,1fr)_4rem] gap-x-2 px-3 md:grid-cols-[3rem_minmax(0,1fr)_7rem_4.5rem_15rem]';
  let box: HTMLDivElement;
  let [top, tall] = $state([0, 800]);
  let dragged = $state<number | null>(null);
  /** Before which row what is dragged would land. */
  let target = $state<number | null>(null);

  const passages = $derived(editor.timeline.passages);
  const first = $derived(Math.max(0, Math.floor(top / RowHeight) - 4));
  const last = $derived(Math.min(passages.length, Math.ceil((top + tall) / RowHeight) + 4));
  const fps = $derived(editor.timeline.rate.numerator / editor.timeline.rate.denominator);
  const most = $derived(Math.max(1e-9, ...editor.review.map((review) => review.asks.decodeCores + review.asks.effectsCores)));

  /** Brings a row into sight and gives it the focus. */
  export async function focus(row: number) {
    const y = row * RowHeight;
    if (y < box.scrollTop) box.scrollTop = y;
    else if (y + RowHeight > box.scrollTop + box.clientHeight) box.scrollTop = y + RowHeight - box.clientHeight;
    top = box.scrollTop;
    await Promise.resolve();
    requestAnimationFrame(() => box?.querySelector<HTMLElement>(`[data-row="${row}"]`)?.focus());
  }

  function choose(event: MouseEvent, row: number) {
    if (event.shiftKey && chosen.length) {
      onextend(row);
    } else if (event.ctrlKey || event.metaKey) {
      onchoose(chosen.includes(row) ? chosen.filter((one) => one !== row) : [...chosen, row]);
    } else {
      onchoose([row]);
    }
  }

  /** The lower half of a row, and all below the last one, mean the place after it. */
  function over(event: DragEvent) {
    if (dragged === null) return;
    event.preventDefault();
    const y = event.clientY - box.getBoundingClientRect().top + box.scrollTop;
    target = Math.max(0, Math.min(passages.length, Math.round(y / RowHeight)));
  }

  function drop(event: DragEvent) {
    event.preventDefault();
    if (dragged !== null && target !== null) {
      const rows = chosen.includes(dragged) ? chosen : [dragged];
      const to = target - rows.filter((one) => one < target!).length;
      editor.change((timeline) => move(timeline, rows, to));
      onchoose(rows.map((_, i) => to + i));
    }
    [dragged, target] = [null, null];
  }
</script>

<div class="flex h-full min-w-0 flex-1 flex-col">
  <div class="{columns} border-b border-base-300 bg-base-200 py-1.5 text-sm font-semibold">
    <span class="text-right">no.</span><span>title, footage</span><span class="hidden md:inline">start</span><span class="text-right">seconds</span><span class="hidden md:inline">decode + effects cores · memory · drive</span>
  </div>
  <div bind:this={box} class="relative min-h-0 flex-1 overflow-auto" bind:clientHeight={tall} onscroll={() => (top = box.scrollTop)} ondragover={over} ondrop={drop} ondragend={() => ([dragged, target] = [null, null])} role="listbox" tabindex="-1" aria-label="Passages" aria-multiselectable="true" data-testid="rows">
    <div style:height="{passages.length * RowHeight}px"></div>
    {#if target !== null}<div class="pointer-events-none absolute inset-x-0 z-10 h-0.5 bg-primary" style:top="{target * RowHeight - 1}px"></div>{/if}
    {#each passages.slice(first, last) as passage, i (first + i)}
      {@const row = first + i}
      {@const review = editor.review[row]}
      {@const wrong = review?.problems.length}
      <!-- svelte-ignore a11y_click_events_have_key_events: keys are heard by the page for all rows at once -->
      <div
        class="{columns} absolute inset-x-0 cursor-default items-start overflow-hidden border-b border-base-300 py-1 leading-tight {chosen.includes(row) ? 'bg-secondary/15' : 'hover:bg-base-200'}"
        style:top="{row * RowHeight}px"
        style:height="{RowHeight}px"
        role="option"
        aria-selected={chosen.includes(row)}
        tabindex={(chosen.length ? lead : 0) === row ? 0 : -1}
        data-row={row}
        draggable="true"
        ondragstart={() => (dragged = row)}
        onclick={(event) => choose(event, row)}
      >
        <span class="figure text-right font-semibold"><span class="sr-only">Passage </span>{row + 1}<span class="sr-only">:</span></span>
        <span class="min-w-0">
          <span class="block truncate">{passage.question}{#if wrong}<span class="sr-only">, cannot be played</span>{/if}</span>
          <span class="flex gap-1 overflow-hidden whitespace-nowrap">
            {#if wrong}<span class="text-xs font-semibold text-error">{review.problems[0]}</span>{/if}
            {#each chips(passage, editor.kindsById) as chip, at (at)}<span class="rounded-sm bg-base-200 px-1 text-xs leading-4">{chip}</span>{/each}
          </span>
        </span>
        <span class="figure quiet hidden text-sm md:inline">{review?.start ?? ''}</span>
        <span class="figure text-right">{(passage.frameCount / fps).toFixed(2)}</span>
        {#if review}
          <span class="hidden text-xs md:block">
            <span class="flex h-2 w-full bg-base-200" aria-hidden="true">
              <span class="h-full bg-base-content/70" style:width="{(100 * review.asks.decodeCores) / most}%"></span>
              <span class="h-full bg-accent" style:width="{(100 * review.asks.effectsCores) / most}%"></span>
            </span>
            <span class="quiet figure whitespace-nowrap">{review.asks.decodeCores.toFixed(1)} + {review.asks.effectsCores.toFixed(1)} · {(review.asks.memoryBytes / 1e6).toFixed(0)} MB · {(review.asks.driveBytesPerSecond / 1e6).toFixed(0)} MB/s</span>
          </span>
        {/if}
      </div>
    {:else}
      <p class="absolute inset-x-0 top-0 p-6 text-center">No passages yet. Press <kbd class="kbd kbd-sm figure">N</kbd> for the first, or <kbd class="kbd kbd-sm figure">B</kbd> to build a series.</p>
    {/each}
  </div>
</div>
