<script lang="ts">
  import { api, orThrow, type RunLine } from '../api/client';
  import ChoiceList from '../ChoiceList.svelte';
  import { columns } from '../run/list';
  import { ago } from '../words';
  import SidesDialog from './SidesDialog.svelte';

  /** Which runs stand side by side; the first chosen is the base. */
  let { runs: shown, onchoose }: { runs: number[]; onchoose: (runs: number[]) => void } = $props();

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
  }
</script>

<SidesDialog what="runs" width="max-w-3xl" {chosen} onopen={open} onchoose={() => onchoose(chosen.map(Number))}>
  <ChoiceList legend="Runs" {choices} bind:chosen />
  {#if problem}<p role="alert" class="text-sm text-error">{problem}</p>{/if}
</SidesDialog>
