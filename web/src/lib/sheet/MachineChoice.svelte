<script lang="ts">
  import { api, orThrow, type Column } from '../api/client';
  import ChoiceList from '../ChoiceList.svelte';

  /** Which machines stand beside the passages, in which order; kept with the timeline. */
  let { timelineId, columns, onchange }: { timelineId: string; columns: Column[]; onchange: () => void } = $props();

  const most = 12;
  let dialog: HTMLDialogElement;
  let choices = $state<{ id: string; name: string }[]>([]);
  let chosen = $state<string[]>([]);
  let problem = $state<string | null>(null);

  const trying = (work: () => Promise<void>) => work().catch((failure: Error) => (problem = failure.message));

  const open = () =>
    trying(async () => {
      [problem, chosen] = [null, columns.map((column) => column.machine.id)];
      choices = orThrow(await api.GET('/api/machines')).map((machine) => ({ id: machine.id, name: machine.summary ? `${machine.name} — ${machine.summary}` : machine.name }));
      dialog.showModal();
    });

  const keep = (event: SubmitEvent) =>
    trying(async () => {
      event.preventDefault();
      orThrow(await api.PUT('/api/timelines/{id}/machines', { params: { path: { id: timelineId } }, body: chosen }));
      dialog.close();
      onchange();
    });
</script>

<button class="link ml-1" onclick={open}>Machines</button>
<dialog bind:this={dialog} class="modal" aria-label="Machines on this sheet">
  <form class="modal-box grid max-w-xl gap-3" onsubmit={keep}>
    <h2 class="font-semibold">Machines on this sheet</h2>
    <p class="quiet text-sm">Columns appear in the order in which you choose machines. Four fit without scrolling. Add and edit machines under <a class="link" href="/machines">Machines</a>.</p>
    <ChoiceList legend="Machines" {choices} bind:chosen />
    {#if chosen.length > most}<p role="alert" class="text-sm text-error">A sheet shows up to {most} machines. Remove {chosen.length - most}.</p>{/if}
    {#if problem}<p role="alert" class="text-sm text-error">{problem}</p>{/if}
    <p class="flex justify-end gap-2">
      <button class="btn btn-sm" type="button" onclick={() => dialog.close()}>Cancel</button>
      <button class="btn btn-primary btn-sm" disabled={!chosen.length || chosen.length > most}>Show these</button>
    </p>
  </form>
</dialog>
