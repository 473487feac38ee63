<script lang="ts">
  import type { Column } from '../api/client';
  import { ago, money } from '../words';

  let { column, running, onplay }: { column: Column; running: boolean; onplay: () => void } = $props();
  const machine = $derived(column.machine);
  const standIn = $derived(machine.kind === 'standIn');
</script>

<th scope="col" class="sticky top-0 z-10 min-w-36 border-b border-base-300 bg-base-200 px-2.5 py-1.5 text-left align-bottom text-sm font-normal" class:hatched={standIn}>
  <div class="flex items-baseline justify-between gap-2">
    <span class="font-semibold">{machine.name}</span>
    <span class="figure quiet text-xs whitespace-nowrap">{money(machine.price ?? null, machine.currency)}</span>
  </div>
  <div class="flex items-center justify-between gap-2">
    <span class="quiet text-xs">
      {#if running}
        playing now
      {:else if column.runId}
        {standIn ? 'stand-in, ' : ''}run {column.runId}, {ago(column.startedAt!)}
      {:else}
        not played yet
      {/if}
    </span>
    <button class="btn btn-ghost btn-xs -mr-2" onclick={onplay} disabled={running} aria-label="Play on {machine.name}">Play</button>
  </div>
  {#if column.notes.length}
    <div class="text-xs text-warning" title={column.notes.join('; ')}>
      {column.notes[0]}{#if column.notes.length > 1}; <a class="link whitespace-nowrap" href="/runs/{column.runId}">{column.notes.length - 1} more</a>{/if}
    </div>
  {/if}
</th>
