<script lang="ts">
  import { isTyping } from '../keys';
  import Comb from '../comb/Comb.svelte';
  import { api, orThrow, type PassageDetail, type Schemas } from '../api/client';
  import { groupsOf, lineOf, valueAt, type LoadLine } from './loads';
  import { fate, nextParting } from './parting';

  /** One passage of every side on one clock: combs one above the other, a cursor across all of them. */
  let { row, sides, onclose }: { row: Schemas['ComparedRow']; sides: Schemas['SideView'][]; onclose: () => void } = $props();

  let at = $state(0);
  let said = $state('');
  const teeth = $derived(row.cells.map((cell) => cell?.cell.comb ?? ''));
  const rate = $derived(sides[0].framesPerSecond);

  /** Of each side, once it is here. */
  let details = $state<(PassageDetail | null)[]>([]);
  let problem = $state('');
  let group = $state('Processor');
  const groups = $derived(groupsOf(details.map((detail) => detail?.loads ?? [])));
  const lines = $derived(details.map((detail) => detail && lineOf(detail.loads, group)));
  const total = $derived((1000 * row.frameCount) / rate);
  const top = $derived(lines.find((line) => line?.limit)?.limit ?? Math.max(1e-9, ...lines.flatMap((line) => line?.values ?? [])));

  /** A comparison that is read again is still the same one: the cursor stays, and loads are not asked for again. */
  const played = $derived(JSON.stringify(row.cells.map((cell, place) => (cell ? { id: sides[place].runId, number: cell.number } : null))));

  $effect(() => {
    const stop = new AbortController();
    const wanted = JSON.parse(played) as ({ id: number; number: number } | null)[];
    [details, problem] = [wanted.map(() => null), ''];
    wanted.forEach(async (path, place) => {
      try {
        if (!path) return;
        const detail = orThrow(await api.GET('/api/runs/{id}/passages/{number}', { params: { path }, signal: stop.signal }));
        details[place] = detail;
      } catch (failure) {
        if (!stop.signal.aborted) problem = (failure as Error).message;
      }
    });
    return () => stop.abort();
  });

  /** The cursor goes back for another passage, not when the sides change places. */
  const passage = $derived(row.number);
  $effect(() => {
    void passage;
    [at, said] = [0, ''];
  });

  const drawn = (line: LoadLine) => line.at.map((ms, i) => `${((100 * ms) / total).toFixed(2)},${(24 - (22 * Math.min(line.values[i], top)) / top).toFixed(2)}`).join(' ');
  const read = (line: LoadLine) => {
    const value = valueAt(line, (1000 * (at + 1)) / rate);
    return value === null ? '' : `${value.toFixed(line.unit === '%' ? 0 : 1)} ${line.unit}`;
  };

  function move(to: number) {
    at = Math.max(0, Math.min(row.frameCount - 1, to));
    said = '';
  }

  function part(step: 1 | -1) {
    const found = nextParting(teeth, at, step);
    if (found === null) said = step > 0 ? 'They do not differ again after this point.' : 'They do not differ before this point.';
    else move(found);
  }

  const steps: Record<string, () => void> = {
    ArrowRight: () => move(at + 1), ArrowLeft: () => move(at - 1), PageDown: () => move(at + rate), PageUp: () => move(at - rate),
    Home: () => move(0), End: () => move(row.frameCount - 1), n: () => part(1), N: () => part(-1), Escape: () => onclose()
  };

  function key(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey || !(event.key in steps)) return;
    event.preventDefault();
    steps[event.key]();
  }

  /** From anywhere on the page, as nothing else answers these. */
  function anywhere(event: KeyboardEvent) {
    if (!event.defaultPrevented && !isTyping(event) && ['n', 'N', 'Escape'].includes(event.key)) key(event);
  }

  function point(event: PointerEvent) {
    const { left, width } = (event.currentTarget as HTMLElement).getBoundingClientRect();
    move(Math.floor(((event.clientX - left) / width) * row.frameCount));
  }
</script>

<svelte:window onkeydown={anywhere} />

<section class="sticky bottom-0 border-t border-base-300 bg-base-100 px-4 py-3 text-sm" aria-label="In step" data-testid="in-step">
  <div class="mb-2 flex flex-wrap items-baseline gap-3">
    <h2 class="font-semibold">Passage {row.number}, {row.question}: in step</h2>
    <span class="figure">slot {at + 1} of {row.frameCount}, {(at / rate).toFixed(2)} s</span>
    <button class="link" onclick={() => part(-1)}>Previous difference <kbd class="kbd kbd-xs">⇧N</kbd></button>
    <button class="link" onclick={() => part(1)}>Next difference <kbd class="kbd kbd-xs">N</kbd></button>
    {#if problem}<span role="alert" class="text-error">{problem}</span>{/if}
    {#if said}<span role="status" class="quiet">{said}</span>{/if}
    {#if groups.length}
      <label class="ml-auto">load <select class="select select-xs w-40" bind:value={group}>{#each groups as one (one)}<option value={one}>{one}</option>{/each}</select></label>
    {/if}
    <button class="link {groups.length ? '' : 'ml-auto'}" onclick={onclose}>Close</button>
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex: the slider within is moved by keys and by pointing -->
  <div class="relative cursor-crosshair" role="slider" tabindex="0" aria-label="Slot" aria-valuemin={1} aria-valuemax={row.frameCount} aria-valuenow={at + 1}
    aria-valuetext={sides.map((side, place) => `${side.machine}: ${fate(teeth[place][at])}`).join(', ')} onkeydown={key} onpointerdown={point}>
    {#each sides as side, place (side.runId)}
      <div class="mb-1.5">
        <span class="flex justify-between"><span>{side.machine} <span class="quiet">run {side.runId}</span></span><span class="quiet">{fate(teeth[place][at])}</span></span>
        {#if row.cells[place]}<Comb teeth={teeth[place]} frames={row.frameCount} frameMs={1000 / rate} class="h-5 w-full" />{:else}<span class="quiet">did not play this passage</span>{/if}
        {#if lines[place]}
          {@const line = lines[place]}
          <div class="relative">
            <svg viewBox="0 0 100 25" preserveAspectRatio="none" class="block h-7 w-full border-b border-base-300" role="img" aria-label="{group} of {side.machine}: {line.name}">
              <polyline points={drawn(line)} fill="none" stroke="currentColor" stroke-width="1.2" vector-effect="non-scaling-stroke" class="text-secondary" />
            </svg>
            <span class="quiet figure absolute top-0 right-0 bg-base-100/80 pl-1 text-xs">{line.name} {read(line)}</span>
          </div>
        {/if}
      </div>
    {/each}
    <span class="pointer-events-none absolute inset-y-0 w-px bg-secondary" style="left: {((at + 0.5) / row.frameCount) * 100}%"></span>
  </div>
</section>
