<script lang="ts">
  import { api, orThrow, type Schemas } from '../api/client';
  import ChoiceList from '../ChoiceList.svelte';

  /** Machines side by side, each by the run that the grid shows of it; the first chosen is the base. */
  let { onchoose }: { onchoose: (runs: number[]) => void } = $props();

  let dialog: HTMLDialogElement;
  let timelines = $state<Schemas['TimelineView'][]>([]);
  let timeline = $state('');
  let rows = $state<Schemas['GridRowView'][] | null>(null);
  let chosen = $state<string[]>([]);
  let problem = $state<string | null>(null);

  const name = (row: Schemas['GridRowView']) => `${row.machine}${row.isStandIn ? ', simulated' : ''}${row.cells[0].notCounting ? ', does not count' : ''}`;
  const trying = (work: () => Promise<void>) => work().catch((failure: Error) => (problem = failure.message));

  const open = () => {
    dialog.showModal();
    return trying(async () => {
      timelines = orThrow(await api.GET('/api/timelines'));
      await read(timeline || timelines[0]?.id);
    });
  };

  async function read(id: string | undefined) {
    [problem, rows, chosen, timeline] = [null, null, [], id ?? ''];
    if (!id) return;
    const grid = orThrow(await api.GET('/api/grid', { params: { query: { timeline: id } } }));
    if (timeline === id) rows = grid.rows;
  }

  function choose(event: SubmitEvent) {
    event.preventDefault();
    dialog.close();
    onchoose(chosen.map((id) => rows!.find((row) => row.machineId === id)!.cells[0].runId));
  }
</script>

<button class="btn btn-sm" onclick={open}>Choose machines</button>
<dialog bind:this={dialog} class="modal" aria-label="Machines to compare">
  <form class="modal-box grid max-w-xl gap-3" onsubmit={choose}>
    <h2 class="font-semibold">Machines to compare</h2>
    <p class="quiet text-sm">Each is shown by its newest bare run of the timeline. The first one chosen is the baseline. Two to six; four fit without scrolling.</p>
    <label class="flex items-center gap-2 text-sm">timeline
      <select class="select select-sm w-60" aria-label="Timeline" value={timeline} onchange={(event) => { const id = event.currentTarget.value; void trying(() => read(id)); }}>
        {#each timelines as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
      </select>
    </label>
    {#if problem}
      <p role="alert" class="text-sm text-error">{problem}</p>
    {:else if rows && rows.length < 2}
      <p role="status" class="text-sm">Fewer than two machines have played it bare. <a class="link" href="/timelines/{timeline}">Play it on more</a></p>
    {:else}
      <ChoiceList legend="Machines" choices={(rows ?? []).map((row) => ({ id: row.machineId, name: name(row) }))} bind:chosen disabled={!rows} />
    {/if}
    <p class="flex justify-end gap-2">
      <button class="btn btn-sm" type="button" onclick={() => dialog.close()}>Cancel</button>
      <button class="btn btn-primary btn-sm" disabled={chosen.length < 2 || chosen.length > 6}>Compare</button>
    </p>
  </form>
</dialog>
