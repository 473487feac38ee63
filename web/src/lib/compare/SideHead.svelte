<script lang="ts">
  import type { Schemas } from '../api/client';
  import { ago, moment } from '../words';

  /** A side's head: what it is, and in what it was not like the base. */
  let { side, isBase, onbase, onremove }: { side: Schemas['SideView']; isBase: boolean; onbase: () => void; onremove: () => void } = $props();

  /** More differences than this are shown when they are asked for. */
  const most = 4;
</script>

{#snippet unlike(differences: Schemas['DifferenceView'][])}
  <ul>{#each differences as one, at (at)}<li>{one.what}: {one.base ?? 'not stated'} → {one.other ?? 'not stated'}</li>{/each}</ul>
{/snippet}

<th scope="col" class="min-w-56 border-b border-base-300 bg-base-200 px-3 py-1.5 text-left align-top text-sm font-normal" class:hatched={side.isStandIn}>
  <span class="flex justify-between gap-2"><span class="font-semibold">{side.machine}</span><span class="quiet">{isBase ? 'baseline' : ''}</span></span>
  <span class="quiet block"><a class="link" href="/runs/{side.runId}">run {side.runId}</a>, <span class="print:hidden">{ago(side.startedAt)}</span><span class="hidden print:inline">{side.timeline}, {moment(side.startedAt)}</span>{side.repeats > 1 ? `, with ${side.repeats - 1} ${side.repeats === 2 ? 'repeat' : 'repeats'}` : ''}</span>
  {#if side.workRan}<span class="block max-w-72 text-xs whitespace-normal" data-testid="work-ran">{side.workRan}</span>{/if}
  {#if side.notCounting}<span class="block max-w-72 text-xs whitespace-normal text-warning" data-testid="not-counting">{side.notCounting}</span>{/if}
  {#if side.notes.length}<span class="block text-xs text-warning">{side.notes.slice(0, 2).join('; ')}{side.notes.length > 2 ? `; ${side.notes.length - 2} more` : ''}</span>{/if}
  {#if !isBase}
    {#if side.conditions.length}
      <div class="mt-1 text-xs text-warning" data-testid="unlike">
        {@render unlike(side.conditions.slice(0, most))}
        {#if side.conditions.length > most}
          <details><summary>{side.conditions.length - most} more</summary>{@render unlike(side.conditions.slice(most))}</details>
        {/if}
      </div>
    {:else}<span class="quiet mt-1 block text-xs">same conditions</span>{/if}
    {#if side.parts.length}
      <details class="mt-0.5 text-xs" open={side.parts.length <= 3}>
        <summary>{side.parts.length === 1 ? 'one part of the machine differs' : `${side.parts.length} parts of the machine differ`}</summary>
        {@render unlike(side.parts)}
      </details>
    {/if}
    <span class="mt-0.5 block text-xs print:hidden"><button class="link mr-2" onclick={onbase}>use as baseline</button><button class="link" onclick={onremove}>remove</button></span>
  {/if}
</th>
