<script lang="ts">
  import { api, type Advice, type Scale, type Sheet } from '../api/client';
  import { Reading } from '../api/reading.svelte';
  import { live } from '../live.svelte';

  let { sheet, scale, onplay }: { sheet: Sheet; scale: Scale; onplay: (machineId: string, scale: Scale | null) => void } = $props();
  const here = $derived(sheet.columns.find((column) => column.machine.kind === 'real'));
  const timelineId = $derived(sheet.timeline.id);
  const unplayed = $derived(scale === 'full' ? sheet.columns.filter((column) => column.machine.kind === 'standIn' && !column.bareId).map((column) => column.machine.name) : []);

  // What the stand-ins have not played yet they play for it, unless something is measured here just now.
  const reading = new Reading<Advice>(() => {
    const params = { path: { id: timelineId } };
    return (signal) => api.POST('/api/timelines/{id}/advice', { params, signal });
  }, () => live.ended);
  const advice = $derived(reading.problem ? null : reading.value);
</script>

<div class="grid gap-1 px-4 py-2.5 text-sm">
  {#if advice}
    <p data-testid="pick">
      <b class="font-semibold">{advice.machineName ? `Recommended: ${advice.machineName}.` : 'No pick.'}</b>
      {advice.reason} <a class="link" href="/advice?timeline={sheet.timeline.id}">Why the others were not chosen</a>
    </p>
  {/if}
  {#if reading.problem}
    <p role="alert" class="text-error" data-testid="stand-ins">No advice: {reading.problem}</p>
  {:else if unplayed.length}
    <p role="status" class="quiet" data-testid="stand-ins">
      {reading.asking ? `${unplayed.join(', ')}: playing it now, simulated; a column fills when its machine is done.` : `${unplayed.join(', ')}: will play it when nothing is being measured on this machine.`}
    </p>
  {/if}
  {#if here && !here.bareId && !live.play?.running}
    <p class="quiet">
      {here.runs.length ? 'This machine has no complete bare run at this scale yet.' : 'This machine has not played at this scale yet.'}
      <button class="link" onclick={() => onplay('', null)}>Play it here</button>
    </p>
  {:else if here?.next && !live.play?.running}
    <p>
      <b class="font-semibold">Next on this machine:</b>
      {here.next.words}
      {#if here.next.act === 'stepDown'}<button class="link" onclick={() => onplay('', here.next!.scale ?? null)}>Go to {here.next.scale} scale</button>
      {:else if here.next.act === 'playAgain'}<button class="link" onclick={() => onplay('', null)}>Play again</button>
      {:else if here.next.act === 'createClips'}<a class="link" href="/footage">Footage</a>
      {:else}<a class="link" href="/advice?timeline={sheet.timeline.id}">Advice</a>{/if}
    </p>
  {/if}
</div>
