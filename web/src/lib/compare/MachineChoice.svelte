<script lang="ts">
  import { api, orThrow, type Schemas } from '../api/client';
  import ChoiceList from '../ChoiceList.svelte';
  import SidesDialog from './SidesDialog.svelte';

  /** Machines side by side, each by the run that the grid shows of it; the first chosen is the baseline. */
  let { onchoose }: { onchoose: (runs: number[]) => void } = $props();

  let timelines = $state<Schemas['TimelineView'][]>([]);
  let timeline = $state('');
  let rows = $state<Schemas['GridRowView'][] | null>(null);
  let chosen = $state<string[]>([]);
  let problem = $state<string | null>(null);

  const name = (row: Schemas['GridRowView']) => `${row.machine}${row.isStandIn ? ', simulated' : ''}${row.cells[0].notCounting ? ', does not count' : ''}`;
  const trying = (work: () => Promise<void>) => work().catch((failure: Error) => (problem = failure.message));

  const open = () =>
    trying(async () => {
      timelines = orThrow(await api.GET('/api/timelines'));
      await read(timeline || timelines[0]?.id);
    });

  async function read(id: string | undefined) {
    [problem, rows, chosen, timeline] = [null, null, [], id ?? ''];
    if (!id) return;
    const grid = orThrow(await api.GET('/api/grid', { params: { query: { timeline: id } } }));
    if (timeline === id) rows = grid.rows;
  }

  const runOf = (machine: string) => rows!.find((row) => row.machineId === machine)!.cells[0].runId;
</script>

<SidesDialog what="machines" hint="Each is shown by its newest bare run of the timeline." width="max-w-xl" {chosen} onopen={open} onchoose={() => onchoose(chosen.map(runOf))}>
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
</SidesDialog>
