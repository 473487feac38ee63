<script lang="ts">
  import { api, type Schemas } from '#lib/api/client.ts';
  import { Reading } from '#lib/api/reading.svelte.ts';
  import { live } from '#lib/live.svelte.ts';
  import NowPlaying from '#lib/play/NowPlaying.svelte';
  import { kinds, moment, trialStates } from '#lib/words.ts';

  // A play's news comes several times a second; the list changes only when the queue does.
  const waiting = $derived(live.play?.waiting.length);

  const reading = new Reading<Schemas['TrialLineView'][]>(() => (signal) => api.GET('/api/trials', { signal }), () => [live.ended, waiting]);
  const trials = $derived(reading.value);
</script>

<svelte:head><title>Trials · Hardy Bench</title></svelte:head>
<NowPlaying />
<div class="p-4">
  <h1 class="mb-3 text-lg font-semibold">Trials <span class="quiet text-sm font-normal">each answers one question about one machine</span></h1>
  {#if reading.problem}
    <p role="alert" class="text-error">{reading.problem}</p>
  {:else if trials?.length === 0}
    <p>No trials yet. <a class="link" href="/timelines">Open a timeline, choose a trial and press Space.</a></p>
  {:else if trials}
    <table class="w-full text-sm" data-testid="trials">
      <thead class="bg-base-200 text-left">
        <tr>
          {#each ['trial', 'question', 'answer', 'timeline', 'machine', 'requested', 'state'] as head, i (head)}
            <th scope="col" class="border-b border-base-300 px-3 py-1.5 font-semibold {i === 0 ? 'text-right' : ''}">{head}</th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each trials as trial (trial.id)}
          <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-3 [&>td]:py-1">
            <td class="figure text-right">{trial.id}</td>
            <td><a class="link" href="/trials/{trial.id}">{kinds[trial.kind].question}</a> <span class="quiet block text-xs">{kinds[trial.kind].name}</span></td>
            <td class="w-[34%]">{trial.answer ?? ''}</td>
            <td>{trial.timelineTitle}</td>
            <td class:hatched={trial.standIn}>{trial.machineName}</td>
            <td class="figure whitespace-nowrap">{moment(trial.askedAt)}</td>
            <td>
              {trialStates[trial.state]}
              {#if trial.problem}<span class="block text-xs text-error">{trial.problem}</span>{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</div>
