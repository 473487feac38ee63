<script lang="ts">
  import { page } from '$app/state';
  import { address } from '#lib/address.ts';
  import { api, type Schemas } from '#lib/api/client.ts';
  import { Reading } from '#lib/api/reading.svelte.ts';
  import { sorted, tells, type Tells } from '#lib/compare/grid.ts';
  import { comparable } from '#lib/compare/sides.ts';
  import { live } from '#lib/live.svelte.ts';
  import VerdictMark from '#lib/VerdictMark.svelte';
  import { fixed, limiterWord, money } from '#lib/words.ts';

  const search = $derived(page.url.searchParams);
  const timeline = $derived(search.get('timeline'));
  const by = $derived((Object.hasOwn(tells, search.get('by') ?? '') ? search.get('by') : 'verdict') as Tells);
  const sort = $derived(search.get('sort') ?? 'machine');
  const timelines = new Reading<Schemas['TimelineView'][]>(() => (signal) => api.GET('/api/timelines', { signal }));
  const reading = new Reading<Schemas['GridView']>(() => {
    const params = { query: { timeline: timeline ?? undefined } };
    return (signal) => api.GET('/api/grid', { params, signal });
  }, () => live.ended);
  const grid = $derived(reading.value);
  const rows = $derived(grid ? sorted(grid.rows, sort, by) : []);
  const query = $derived(timeline ? `?timeline=${encodeURIComponent(timeline)}` : '');
  let chosen = $state<number[]>([]);

  function chooseTimeline(id: string) {
    chosen = [];
    address({ timeline: id || null, sort: null });
  }

  const runOf = (row: Schemas['GridRowView']) => row.cells.find((cell) => cell)?.runId ?? null;
  const toggle = (run: number) => (chosen = chosen.includes(run) ? chosen.filter((one) => one !== run) : [...chosen, run]);
  const aria = (column: string) => (sort === column ? 'ascending' : undefined);
  const leads = (cell: Schemas['GridCellView'], column: Schemas['GridColumnView']) =>
    grid?.timeline ? `/runs/${cell.runId}` : `/compare/grid?timeline=${encodeURIComponent(column.key)}`;
</script>

<svelte:head><title>Grid · Hardy Bench</title></svelte:head>
<div class="flex flex-wrap items-center gap-3 px-4 py-3 text-sm">
  <h1 class="text-lg font-semibold">Grid <span class="quiet text-sm font-normal">every machine by the passages of {grid?.timeline ? `“${grid.timeline}”` : 'every timeline'}, by its newest complete bare run</span></h1>
  <span class="ml-auto flex flex-wrap items-center gap-3 print:hidden">
    <label class="flex items-center gap-1.5">of
      <select class="select select-sm w-44" value={timeline ?? ''} onchange={(event) => chooseTimeline(event.currentTarget.value)}>
        <option value="">every timeline</option>
        {#each timelines.value ?? [] as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
      </select>
    </label>
    <label class="flex items-center gap-1.5">by
      <select class="select select-sm w-36" value={by} onchange={(event) => address({ by: event.currentTarget.value })}>
        {#each Object.entries(tells) as [name, words] (name)}<option value={name}>{words}</option>{/each}
      </select>
    </label>
    <span class="quiet">export as <a class="link mx-1" href="/api/grid/table.csv{query}" download>csv</a><a class="link" href="/api/grid{query}" download="grid.json">json</a></span>
    {#if timeline}
      <a class="btn btn-sm {comparable(chosen.length) ? 'btn-primary' : 'btn-disabled'}" aria-disabled={!comparable(chosen.length)} href="/compare?{chosen.map((run) => `run=${run}`).join('&')}">Compare {chosen.length || ''}</a>
    {/if}
  </span>
</div>
{#if reading.problem}
  <p role="alert" class="px-4 text-error">{reading.problem}</p>
{:else if grid && rows.length === 0}
  <p class="px-4 text-sm">No machine has played {timeline ? 'it' : 'anything'} bare to its end yet. <a class="link" href="/timelines">Open a timeline</a>: its stand-ins play it then.</p>
{:else if grid}
  <div class="overflow-auto px-4 pb-4">
    <table class="w-full border-separate border-spacing-0 text-sm" data-testid="grid">
      <thead>
        <tr>
          {#if timeline}<th scope="col" class="border-b border-base-300 bg-base-200 px-2 print:hidden"><span class="sr-only">to compare</span></th>{/if}
          {#each [['machine', 'Machine'], ['price', 'price']] as [column, words] (column)}
            <th scope="col" aria-sort={aria(column)} class="border-b border-base-300 bg-base-200 px-2 py-1.5 {column === 'price' ? 'text-right' : 'text-left'} align-bottom font-semibold">
              <button data-prints class="hover:underline" onclick={() => address({ sort: column === 'machine' ? null : column })}>{words}{sort === column ? ' ▾' : ''}</button>
            </th>
          {/each}
          {#each grid.columns as column, at (column.key)}
            <th scope="col" aria-sort={aria(`${at}`)} class="max-w-36 min-w-24 border-b border-base-300 bg-base-200 px-2 py-1.5 text-left align-bottom text-xs">
              <button data-prints class="text-left hover:underline" title="sort by this column" onclick={() => address({ sort: `${at}` })}>
                {#if grid.timeline}<span class="text-sm font-semibold">{column.key}</span>{/if}
                <span class={grid.timeline ? 'font-normal' : 'text-sm font-semibold'}>{column.words}</span>{sort === `${at}` ? ' ▾' : ''}
              </button>
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each rows as row (row.machineId)}
          {@const run = runOf(row)}
          <tr class="hover:bg-secondary/10">
            {#if timeline}
              <td class="border-b border-base-200 px-2 print:hidden">
                {#if run}<input type="checkbox" class="checkbox checkbox-xs" aria-label="Compare {row.machine}" checked={chosen.includes(run)} onchange={() => toggle(run)} />{/if}
              </td>
            {/if}
            <th scope="row" class="border-b border-base-200 px-2 py-1 text-left font-normal whitespace-nowrap"><a class="link" href="/machines?id={row.machineId}">{row.machine}</a></th>
            <td class="figure border-b border-base-200 px-2 text-right whitespace-nowrap">{row.price == null ? '' : money(row.price, 'EUR')}</td>
            {#each row.cells as cell, at (grid.columns[at].key)}
              <td class="border-b border-base-200 px-2 py-0.5" class:hatched={row.isStandIn}>
                {#if cell}
                  <a class="block hover:underline" href={leads(cell, grid.columns[at])}>
                    {#if cell.notCounting}<span class="text-xs text-warning" title={cell.notCounting}>does not count</span>
                    {:else if by === 'verdict'}
                      <VerdictMark verdict={cell.verdict ?? null} />
                      {#if !grid.timeline}<span class="quiet block text-xs">{cell.holds} of {cell.judged} hold</span>{/if}
                    {:else if by === 'share'}<span class="figure">{fixed(100 * cell.share, cell.share < 1 && cell.share > 0.99 ? 1 : 0)} %</span>
                    {:else}<span class="figure">{cell.headroom == null ? '—' : `${fixed(cell.headroom)}×`}</span>{/if}
                    {#if cell.limiter}<span class="quiet block text-xs">{limiterWord(cell.limiter)}</span>{/if}
                  </a>
                {:else}<span class="quiet">—</span>{/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{:else}
  <p class="quiet px-4">Reading…</p>
{/if}
