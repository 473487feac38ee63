<script lang="ts">
  import type { Cell } from '../api/client';
  import Comb from '../comb/Comb.svelte';
  import VerdictMark from '../VerdictMark.svelte';
  import { fixed, limiterWord } from '../words';

  let {
    cell,
    growing,
    standIn,
    counts = true,
    frames,
    rate,
    place,
    label,
    chosen,
    onchoose,
    onmove
  }: {
    cell: Cell | null;
    growing: string | null;
    standIn: boolean;
    /** Whether the run says something of its machine. */
    counts?: boolean;
    frames: number;
    rate: number;
    place: string;
    label: string;
    chosen: boolean;
    onchoose: () => void;
    onmove: (event: KeyboardEvent) => void;
  } = $props();
</script>

<td class="border-b border-base-300 p-0 align-top" class:hatched={standIn}>
  <button
    class="block h-full w-full px-2.5 py-0.5 text-left leading-[1.15rem] hover:bg-secondary/10 {chosen ? 'bg-secondary/15 outline-2 -outline-offset-2 outline-secondary' : ''}"
    data-cell={place}
    data-prints
    aria-pressed={chosen}
    disabled={!cell && growing === null}
    onclick={onchoose}
    onkeydown={onmove}
  >
    <span class="sr-only">{label}:</span>
    <span class="block">
      {#if growing !== null}
        <Comb teeth={growing} {frames} frameMs={1000 / rate} class="h-3.5 w-full" />
        <span class="quiet text-xs">{growing.length ? `${growing.length} of ${frames} slots` : 'waiting'}</span>
      {:else if cell && cell.slots}
        <Comb teeth={cell.comb} {frames} frameMs={1000 / rate} class="h-3.5 w-full" />
        <span class="flex items-baseline justify-between gap-1">
          {#if cell.failure}<span class="text-warning text-sm" title={cell.failure}>not played</span>{:else}<span class={counts ? '' : 'line-through'}><VerdictMark verdict={cell.verdict ?? null} /></span>{/if}
          {#if cell.headroom != null}
            <span class="figure text-sm whitespace-nowrap" title="headroom: what the machine sustains ÷ what is required">{fixed(cell.headroom, cell.headroom < 10 ? 2 : 0)}×</span>
          {:else}
            <span class="figure text-sm whitespace-nowrap">{fixed(cell.shownRate)} <span class="quiet text-xs">of {rate}</span></span>
          {/if}
        </span>
        <span class="quiet block truncate text-xs leading-[0.95rem]" title={cell.decodedOn.length ? `decoded on: ${cell.decodedOn.join(', ')}` : null}>
          {#if cell.limiter}{limiterWord(cell.limiter)}{#if cell.second}, then {limiterWord(cell.second)}{/if}{/if}{#if cell.headroom != null}{cell.limiter ? ', ' : ''}<span class="figure">{fixed(cell.shownRate)}</span> of {rate} shown{:else}&nbsp;{/if}
        </span>
      {:else}
        <span class="quiet block py-3 text-sm">{cell ? 'not reached' : '—'}</span>
      {/if}
    </span>
  </button>
</td>
