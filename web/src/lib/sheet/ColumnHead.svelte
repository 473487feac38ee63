<script lang="ts">
  import type { Column } from '../api/client';
  import { ago, endings, money } from '../words';

  let { column, running, onplay, onpick }: { column: Column; running: boolean; onplay: () => void; onpick: (runId: number | null) => void } = $props();
  const machine = $derived(column.machine);
  const standIn = $derived(machine.kind === 'standIn');
  const bare = $derived(column.runs.find((run) => run.id === column.bareId) ?? null);
  const others = $derived(column.runs.filter((run) => run.id !== column.bareId));
  const name = (run: Column['runs'][number]) =>
    [`run ${run.id}`, run.ending === 'finished' ? null : endings[run.ending], ...run.differences, ago(run.startedAt)].filter(Boolean).join(', ');
</script>

<th scope="col" class="sticky top-0 z-10 min-w-36 border-b border-base-300 bg-base-200 px-2.5 py-1.5 text-left align-bottom text-sm font-normal" class:hatched={standIn}>
  <div class="flex items-baseline justify-between gap-2">
    <span class="font-semibold">{machine.name}</span>
    <span class="figure quiet text-xs whitespace-nowrap">{money(machine.price ?? null, machine.currency)}</span>
  </div>
  <div class="flex items-center justify-between gap-2">
    <span class="quiet min-w-0 flex-1 text-xs">
      {#if running}
        playing now
      {:else if others.length}
        <select
          class="select select-xs select-ghost -ml-2 w-full max-w-40 min-w-0 pr-6! text-ellipsis"
          aria-label="Run shown for {machine.name}"
          title="Which run this column shows"
          value={column.runId === column.bareId ? '' : column.runId}
          onchange={(event) => onpick(Number(event.currentTarget.value) || null)}
        >
          <option value="">{bare ? name(bare) : 'no complete bare run'}</option>
          {#each others as run (run.id)}<option value={run.id}>{name(run)}</option>{/each}
        </select>
      {:else if bare}
        {standIn ? 'stand-in, ' : ''}{name(bare)}
      {:else}
        not played yet
      {/if}
    </span>
    <button class="btn btn-ghost btn-xs -mr-2" onclick={onplay} disabled={running} aria-label="Play on {machine.name}">Play</button>
  </div>
  {#if column.notCounting}<div class="max-w-52 text-xs whitespace-normal text-warning" data-testid="not-counting">{column.notCounting}</div>{/if}
  {#if column.notes.length}
    <div class="text-xs text-warning" title={column.notes.join('; ')}>
      {column.notes[0]}{#if column.notes.length > 1}; <a class="link whitespace-nowrap" href="/runs/{column.runId}">{column.notes.length - 1} more</a>{/if}
    </div>
  {/if}
</th>
