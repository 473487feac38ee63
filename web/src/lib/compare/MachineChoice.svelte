<script lang="ts">
  import { api, orThrow, type Schemas } from '../api/client';
  import ChoiceList from '../ChoiceList.svelte';

  /** Machines side by side, each by the run that the sheet of a timeline shows of it; the first chosen is the base. */
  let { onchoose }: { onchoose: (runs: number[]) => void } = $props();

  let dialog: HTMLDialogElement;
  let timelines = $state<Schemas['TimelineView'][]>([]);
  let timeline = $state('');
  let columns = $state<Schemas['ColumnView'][] | null>(null);
  let chosen = $state<string[]>([]);
  let problem = $state<string | null>(null);

  const played = $derived((columns ?? []).filter((column) => column.runId !== null));
  const name = (column: Schemas['ColumnView']) => `${column.machine.name}${column.machine.kind === 'standIn' ? ', simulated' : ''}${column.notCounting ? ', does not count' : ''}`;
  const trying = (work: () => Promise<void>) => work().catch((failure: Error) => (problem = failure.message));

  const open = () => {
    dialog.showModal();
    return trying(async () => {
      timelines = orThrow(await api.GET('/api/timelines'));
      await read(timeline || timelines[0]?.id);
    });
  };

  async function read(id: string | undefined) {
    [problem, columns, chosen, timeline] = [null, null, [], id ?? ''];
    if (!id) return;
    const sheet = orThrow(await api.GET('/api/timelines/{id}/sheet', { params: { path: { id }, query: { run: [] } } }));
    if (timeline === id) columns = sheet.columns;
  }

  function choose(event: SubmitEvent) {
    event.preventDefault();
    dialog.close();
    onchoose(chosen.map((id) => played.find((column) => column.machine.id === id)!.runId!));
  }
</script>

<button class="btn btn-sm" onclick={open}>Choose machines</button>
<dialog bind:this={dialog} class="modal" aria-label="Machines to compare">
  <form class="modal-box grid max-w-xl gap-3" onsubmit={choose}>
    <h2 class="font-semibold">Machines to compare</h2>
    <p class="quiet text-sm">Each is shown by its newest run of the timeline. The first one chosen is the base. Two to six; four fit without scrolling.</p>
    <label class="flex items-center gap-2 text-sm">timeline
      <select class="select select-sm w-60" aria-label="Timeline" value={timeline} onchange={(event) => { const id = event.currentTarget.value; void trying(() => read(id)); }}>
        {#each timelines as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
      </select>
    </label>
    {#if problem}
      <p role="alert" class="text-sm text-error">{problem}</p>
    {:else if columns && played.length < 2}
      <p role="status" class="text-sm">Fewer than two machines have played it. <a class="link" href="/timelines/{timeline}">Play it on more</a></p>
    {:else}
      <ChoiceList legend="Machines" choices={played.map((column) => ({ id: column.machine.id, name: name(column) }))} bind:chosen disabled={!columns} />
    {/if}
    <p class="flex justify-end gap-2">
      <button class="btn btn-sm" type="button" onclick={() => dialog.close()}>Cancel</button>
      <button class="btn btn-primary btn-sm" disabled={chosen.length < 2 || chosen.length > 6}>Compare</button>
    </p>
  </form>
</dialog>
