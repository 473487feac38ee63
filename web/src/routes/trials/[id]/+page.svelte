<script lang="ts">
  import { page } from '$app/state';
  import { api, type Trial } from '#lib/api/client.ts';
  import { Reading } from '#lib/api/reading.svelte.ts';
  import PassagePanel from '#lib/detail/PassagePanel.svelte';
  import { live } from '#lib/live.svelte.ts';
  import NowPlaying from '#lib/play/NowPlaying.svelte';
  import LagSections from '#lib/run/LagSections.svelte';
  import SoakCurve from '#lib/trial/SoakCurve.svelte';
  import TrialTable from '#lib/trial/TrialTable.svelte';
  import { kinds, moment, trialStates } from '#lib/words.ts';

  const id = $derived(Number(page.params.id));
  const reading = new Reading<Trial>(() => {
    const params = { path: { id } };
    return (signal) => api.GET('/api/trials/{id}', { params, signal });
  }, () => live.ended);
  const trial = $derived(reading.value);
  const problem = $derived(reading.problem);
  let chosen = $state<{ runId: number; number: number } | null>(null);
  const about = $derived(trial && kinds[trial.trial.kind]);
  const byHand = $derived(trial?.trial.kind === 'scrub' || trial?.trial.kind === 'startLag');
</script>

<svelte:head><title>Trial {id} · Hardy Bench</title></svelte:head>
{#if problem}
  <p role="alert" class="p-4 text-error">{problem} <a class="link" href="/trials">All trials</a></p>
{:else if trial && about}
  <div class="flex h-full flex-col">
    <header class="border-b border-base-300 px-4 py-2">
      <h1 class="text-lg font-semibold">
        {about.question}
        <span class="quiet text-sm font-normal">
          {about.name}, <a class="link" href="/timelines/{trial.trial.timelineId}">{trial.trial.timelineTitle}</a> on {trial.trial.machineName}{trial.trial.standIn ? ', simulated' : ''}
        </span>
      </h1>
      <p class="whitespace-pre-line" data-testid="answer">{trial.answer}</p>
      {#if trial.nextStep}<p class="text-sm" data-testid="next-step"><b class="font-semibold">Next:</b> {trial.nextStep}</p>{/if}
      <p class="quiet text-sm">
        Trial {id}, {trialStates[trial.trial.state]}, requested {moment(trial.trial.askedAt)}.
        {#if trial.change}Changed: <b class="font-semibold text-base-content">{trial.change}</b>.{/if}
        {trial.differences.length ? `Not bare: ${trial.differences.join(', ')}.` : 'Bare: every aid off.'}
      </p>
      {#if trial.trial.problem}<p role="alert" class="text-sm text-error">{trial.trial.problem}</p>{/if}
    </header>
    {#if live.play?.trialId === id || trial.trial.state === 'waiting'}<NowPlaying />{/if}
    <div class="flex min-h-0 flex-1">
      <!-- svelte-ignore a11y_no_noninteractive_tabindex: what scrolls has to be reached by keys -->
      <div class="min-w-0 flex-1 overflow-auto" role="region" aria-label="Results" tabindex="0">
        {#if !trial.runs.length}
          <p class="quiet p-4">It has no runs yet.</p>
        {:else if byHand}
          <LagSections passages={trial.rows.map((row) => ({ ...row, name: row.question }))} />
        {:else}
          <SoakCurve celsius={trial.endCelsius} />
          <TrialTable {trial} {chosen} onchoose={(cell) => (chosen = cell)} />
        {/if}
      </div>
      {#if chosen}
        <div class="side"><PassagePanel {...chosen} onclose={() => (chosen = null)} /></div>
      {/if}
    </div>
  </div>
{:else}
  <p class="quiet p-4">Reading…</p>
{/if}
