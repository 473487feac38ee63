<script lang="ts">
  import { api, orThrow, type RunLine } from '../api/client';
  import ChoiceList from '../ChoiceList.svelte';
  import { columns } from '../run/list';
  import { ago } from '../words';

  /** Which runs stand side by side; the first chosen is the base. */
  let { runs: shown, onchoose }: { runs: number[]; onchoose: (runs: number[]) => void } = $props();

  let dialog: HTMLDialogElement;
  let choices = $state<{ id: string; name: string }[]>([]);
  let chosen = $state<string[]>([]);
  let problem = $state<string | null>(null);

  const named = (run: RunLine) => `${run.id} · ${run.machineName} · ${run.timelineTitle} · ${run.scale} scale · ${columns.conditions(run)} · ${ago(run.startedAt)}`;

  async function open() {
    [problem, chosen] = [null, shown.map(String)];
    try {
      choices = orThrow(await api.GET('/api/runs/page', { params: { query: { take: 1000 } } })).runs.filter((run) => !run.byHand && run.ending !== 'playing').map((run) => ({ id: `${run.id}`, name: named(run) }));
    } catch (failure) {
      problem = (failure as Error).message;
    }
    dialog.showModal();
  }

  function choose(event: SubmitEvent) {
    event.preventDefault();
    dialog.close();
    onchoose(chosen.map(Number));
  }
</script>

<button class="btn btn-sm" onclick={open}>Choose runs</button>
<dialog bind:this={dialog} class="modal" aria-label="Runs to compare">
  <form class="modal-box grid max-w-3xl gap-3" onsubmit={choose}>
    <h2 class="font-semibold">Runs to compare</h2>
    <p class="quiet text-sm">The first one chosen is the baseline. Two to six; four fit without scrolling.</p>
    <ChoiceList legend="Runs" {choices} bind:chosen />
    {#if problem}<p role="alert" class="text-sm text-error">{problem}</p>{/if}
    <p class="flex justify-end gap-2">
      <button class="btn btn-sm" type="button" onclick={() => dialog.close()}>Cancel</button>
      <button class="btn btn-primary btn-sm" disabled={chosen.length < 2 || chosen.length > 6}>Compare</button>
    </p>
  </form>
</dialog>
