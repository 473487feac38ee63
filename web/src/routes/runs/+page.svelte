<script lang="ts">
  import { SvelteMap } from 'svelte/reactivity';
  import { api, orThrow, type RunLine, type Schemas } from '#lib/api/client.ts';
  import { Reading } from '#lib/api/reading.svelte.ts';
  import { mostSides } from '#lib/compare/sides.ts';
  import { live } from '#lib/live.svelte.ts';
  import { columns, grouped, orders, written, type Grouping } from '#lib/run/list.ts';

  const figures = ['run', 'holds', 'wavers', 'breaks', 'shown %', 'slots', 'marks'];
  const most = 100;
  let words = $state('');
  let order = $state({ by: 'number', rising: false });
  /** The column that was asked to sort: others may come to the same order. */
  let sorted = $state('run');
  let skip = $state(0);
  const asked = (from: number, take: number) => ({ words, ...order, skip: from, take });
  const reading = new Reading<Schemas['RunPageView']>(() => {
    const query = asked(skip, most);
    return (signal) => api.GET('/api/runs/page', { params: { query }, signal });
  }, () => live.ended);
  const found = $derived(reading.value?.found ?? 0);
  let by = $state<Grouping>('none');
  /** Those of other pages too. */
  const selected = new SvelteMap<number, RunLine>();
  let aside = $state<number[]>([]);
  let said = $state('');
  const shown = $derived(reading.value?.runs ?? []);
  const taken = $derived([...selected.values()]);
  /** In the order of their numbers: the earliest is the base. */
  const comparable = $derived(taken.filter((run) => !run.byHand && run.ending !== 'playing').map((run) => run.id).sort((one, other) => one - other).slice(0, mostSides));

  async function put(ids: number[], away: boolean) {
    await api.POST('/api/runs/deleted', { body: { ids, deleted: away } });
    aside = away ? ids : [];
    selected.clear();
    live.ended++;
  }

  function toggle(runs: RunLine[], on: boolean) {
    for (const run of runs) on ? selected.set(run.id, run) : selected.delete(run.id);
  }

  function sort(name: string) {
    const by = orders[name];
    sorted = name;
    order = { by, rising: order.by === by ? !order.rising : ['timeline', 'machine', 'scale'].includes(by) };
    skip = 0;
  }

  /** Those selected, or all that are found, on whatever page. */
  async function worth() {
    return taken.length ? taken : orThrow(await api.GET('/api/runs/page', { params: { query: asked(0, Math.max(1, found)) } })).runs;
  }

  async function save() {
    const runs = await worth();
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([written(runs, ',')], { type: 'text/csv' }));
    link.download = 'runs.csv';
    link.click();
    URL.revokeObjectURL(link.href);
  }

  async function copy() {
    const runs = await worth();
    await navigator.clipboard.writeText(written(runs, '\t'));
    said = `${runs.length} runs copied as a table.`;
  }
</script>

<svelte:head><title>Runs · Hardy Bench</title></svelte:head>
<div class="p-4">
  <div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 text-sm">
    <h1 class="text-lg font-semibold">Runs</h1>
    <input class="input input-sm w-64" type="search" aria-label="Show only runs with" placeholder="filter…" bind:value={words} oninput={() => (skip = 0)} />
    <label class="flex items-center gap-1.5">
      grouped by
      <select class="select select-sm w-36" bind:value={by}>
        <option value="none">nothing</option>
        <option value="conditions">conditions</option>
        <option value="trial">trial</option>
      </select>
    </label>
    <span class="quiet" data-testid="counts">{found} of {reading.value?.all ?? 0} runs{taken.length ? `, ${taken.length} selected` : ''}</span>
    {#if found > most}
      <nav class="flex items-center gap-2" aria-label="Pages">
        <button class="btn btn-sm" disabled={skip === 0} onclick={() => (skip = Math.max(0, skip - most))}>Previous</button>
        <span class="figure">{skip + 1}–{skip + shown.length}</span>
        <button class="btn btn-sm" disabled={skip + most >= found} onclick={() => (skip += most)}>Next</button>
      </nav>
    {/if}
    <span class="ml-auto flex gap-2">
      <a class="btn btn-sm {comparable.length < 2 ? 'btn-disabled' : ''}" aria-disabled={comparable.length < 2} href={comparable.length < 2 ? undefined : `/compare?${comparable.map((id) => `run=${id}`).join('&')}`}>Compare</a>
      <button class="btn btn-sm" onclick={save} disabled={!found}>Export as CSV</button>
      <button class="btn btn-sm" onclick={copy} disabled={!found}>Copy as table</button>
      <button class="btn btn-sm" onclick={() => put(taken.map((run) => run.id), true)} disabled={!taken.length}>Delete</button>
    </span>
  </div>
  {#if aside.length}
    <p role="status" class="mb-2 text-sm" data-testid="aside">
      {aside.length === 1 ? 'One run is' : `${aside.length} runs are`} deleted. <button class="link" onclick={() => put(aside, false)}>Restore</button>
    </p>
  {:else if said}
    <p role="status" class="quiet mb-2 text-sm">{said}</p>
  {/if}
  {#if reading.problem}
    <p role="alert" class="text-error">{reading.problem}</p>
  {:else if reading.value?.all === 0}
    <p>Nothing has been played yet. <a class="link" href="/timelines">Open a timeline and press Space.</a></p>
  {:else if reading.value && !found}
    <p data-testid="no-runs">No run matches. <button class="link" onclick={() => (words = '')}>Show all {reading.value.all}</button></p>
  {:else if reading.value}
    <table class="w-full text-sm" data-testid="runs">
      <thead class="bg-base-200 text-left">
        <tr class="[&>th]:border-b [&>th]:border-base-300 [&>th]:px-2.5 [&>th]:py-1.5 [&>th]:font-semibold">
          <th scope="col"><input type="checkbox" class="checkbox checkbox-sm" aria-label="All runs shown" checked={shown.length > 0 && shown.every((run) => selected.has(run.id))} onchange={(event) => toggle(shown, event.currentTarget.checked)} /></th>
          {#each Object.keys(columns) as head (head)}
            <th scope="col" class={figures.includes(head) ? 'text-right' : ''} aria-sort={head !== sorted ? undefined : order.rising ? 'ascending' : 'descending'}>
              {#if orders[head]}<button data-prints class="font-semibold hover:underline" onclick={() => sort(head)}>{head}{head === sorted ? (order.rising ? ' ↑' : ' ↓') : ''}</button>{:else}{head}{/if}
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each grouped(shown, by) as group (group.key)}
          {#if group.title}
            <tr>
              <th scope="rowgroup" colspan={Object.keys(columns).length + 1} class="border-b border-base-300 px-2.5 pt-3 pb-1 text-left font-semibold">
                {#if group.trialId}<a class="link" href="/trials/{group.trialId}">{group.title}</a>{:else}{group.title}{/if}
                <span class="quiet font-normal">{group.runs.length === 1 ? 'one run' : `${group.runs.length} runs`}</span>
              </th>
            </tr>
          {/if}
          {#each group.runs as run (run.id)}
            <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-2.5 [&>td]:py-1 {selected.has(run.id) ? 'bg-secondary/10' : ''}">
              <td><input type="checkbox" class="checkbox checkbox-sm" aria-label="Run {run.id}" checked={selected.has(run.id)} onchange={(event) => toggle([run], event.currentTarget.checked)} /></td>
              {#each Object.entries(columns) as [name, value] (name)}
                <td class="{figures.includes(name) ? 'figure' : name === 'started' ? 'figure whitespace-nowrap' : name === 'timeline' || name === 'machine' ? 'min-w-28' : ''} {figures.includes(name) ? 'text-right' : ''} {name === 'ending' && (run.ending === 'cutShort' || run.notCounting) ? 'text-warning' : ''}" title={name === 'ending' ? run.notCounting : null}>
                  {#if name === 'run'}<a class="link" href="/runs/{run.id}">{run.id}</a>
                  {:else}{value(run)}{#if name === 'conditions' && run.trialId && run.label !== '1 of 1'}<a class="link quiet ml-1" href="/trials/{run.trialId}" title="Its trial">{run.label === `${run.scale} scale` ? `trial ${run.trialId}` : run.label}</a>{/if}{/if}
                </td>
              {/each}
            </tr>
          {/each}
        {/each}
      </tbody>
    </table>
  {/if}
</div>
