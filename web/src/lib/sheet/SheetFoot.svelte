<script lang="ts">
  import { api, type Advice, type Scale, type Sheet } from '../api/client';
  import { live } from '../live.svelte';

  let { sheet, onplay }: { sheet: Sheet; onplay: (machineId: string, scale: Scale | null) => void } = $props();
  let advice = $state<Advice | null>(null);
  const here = $derived(sheet.columns.find((column) => column.machine.kind === 'this'));

  $effect(() => {
    void live.ended;
    const params = { path: { id: sheet.timeline.id } };
    // What the stand-ins have not played yet they play for it, unless something is measured here just now.
    api.POST('/api/timelines/{id}/advice', { params }).then((answer) => (advice = answer.data ?? null));
  });
</script>

<div class="grid gap-1 px-4 py-2.5 text-sm">
  {#if advice}
    <p data-testid="pick">
      <b class="font-semibold">{advice.machineName ? `Take ${advice.machineName}.` : 'No pick.'}</b>
      {advice.reason} <a class="link" href="/advice?timeline={sheet.timeline.id}">Why not the others</a>
    </p>
  {/if}
  {#if here && !here.runId && !live.play?.running}
    <p class="quiet">
      This machine has not played at this scale yet.
      <button class="link" onclick={() => onplay('this', null)}>Play it here</button>
    </p>
  {:else if here?.next && !live.play?.running}
    <p>
      <b class="font-semibold">Next on this machine:</b>
      {here.next.words}
      {#if here.next.act === 'stepDown'}<button class="link" onclick={() => onplay('this', here.next!.scale ?? null)}>Go to {here.next.scale} scale</button>
      {:else if here.next.act === 'playAgain'}<button class="link" onclick={() => onplay('this', null)}>Play again</button>
      {:else if here.next.act === 'mendClips'}<a class="link" href="/footage">Footage</a>
      {:else}<a class="link" href="/advice?timeline={sheet.timeline.id}">Advice</a>{/if}
    </p>
  {/if}
</div>
