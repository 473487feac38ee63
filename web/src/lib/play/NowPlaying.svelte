<script lang="ts">
  import { api } from '../api/client';
  import { isTyping } from '../keys';
  import { live } from '../live.svelte';
  import { fixed, kinds, length, stepOf } from '../words';
  import MarkForm from './MarkForm.svelte';

  const play = $derived(live.play?.running ? live.play : null);
  const calibrating = $derived(live.calibrating?.running ? live.calibrating : null);
  const waiting = $derived(live.play?.waiting.filter((one) => one.trialId !== play?.trialId) ?? []);
  const left = $derived(play ? Math.ceil((play.of - play.frames) / play.framesPerSecond) : 0);
  const mostCores = 4;
  const watched = ['Processor', "Player's work", 'Graphics and media engine'];
  const worth = $derived(few(live.loads.filter((load) => watched.includes(load.group))));
  const missed = $derived(play ? play.teeth.split(/[dv]/).length - 1 : 0);
  let said = $state('');

  /** What the trial that has just ended came to: the first lines say it. */
  const shownLines = 3;
  let answer = $state<string | null>(null);
  $effect(() => {
    const ended = live.answered;
    answer = null;
    if (!ended || ended.kind === 'play') return;
    void api.GET('/api/trials/{id}', { params: { path: { id: ended.trialId } } }).then(({ data }) => {
      if (live.answered?.trialId === ended.trialId) answer = data?.answer.split('\n').slice(0, shownLines).join(' ') ?? null;
    });
  });
  let marking = $state<{ runId: number; frame: null; pressedAt: number } | null>(null);

  /** Of many cores their mean. */
  function few(loads: typeof live.loads) {
    const cores = loads.filter((load) => load.group === 'Processor');
    if (cores.length <= mostCores) return loads;
    const mean = cores.reduce((sum, core) => sum + core.value, 0) / cores.length;
    return [{ ...cores[0], name: `${cores.length} cores, mean`, value: mean }, ...loads.filter((load) => load.group !== 'Processor')];
  }

  /** The moment counts at which the key was pressed, not that at which the words were found or news came. */
  const mark = () => play?.runId && (said = '', marking = { runId: play.runId, frame: null, pressedAt: performance.now() });
  const withdraw = (trialId: number) => api.DELETE('/api/play/waiting/{trialId}', { params: { path: { trialId } } });
</script>

<svelte:window onkeydown={(event) => event.key === 'm' && !isTyping(event) && !event.ctrlKey && mark()} />

{#if play || waiting.length || marking || calibrating}
  <section aria-label="Playing now" class="border-b border-base-300 bg-secondary/10 px-4 py-1.5 text-sm" data-testid="now-playing">
    {#if calibrating}
      <p data-testid="calibrating">This machine is being calibrated: {calibrating.clip ?? 'starting'}, <span class="figure">{Math.round(calibrating.share * 100)}</span> %{#if calibrating.secondsLeft}, about {length(calibrating.secondsLeft)} left{/if}. Nothing else should run on it. <a class="link" href="/machines?id=this">Details</a></p>
    {/if}
    {#if live.play?.waitsFor}<p class="text-warning" role="status" data-testid="waits-for">Waiting: {live.play.waitsFor}.</p>{/if}
    {#if play}
      <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
        {#if live.picture}<img src={live.picture} alt="The frame on screen" class="h-16 border border-base-300" />{/if}
        <span><a class="link" href="/timelines/{play.timelineId}">{play.timelineTitle}</a> on {play.machineName},
          <a class="link whitespace-nowrap" href="/trials/{play.trialId}">{kinds[play.kind].name}{stepOf(play)}</a></span>
        {#if play.byHand}
          <span class="figure whitespace-nowrap">{play.frames}<span class="quiet ml-1">of {play.of} places</span></span>
          {#if live.lastLagMs !== null}<span class="figure whitespace-nowrap">{fixed(live.lastLagMs, 0)}<span class="quiet ml-1">ms, the last</span></span>{/if}
        {:else}
          <span class="figure whitespace-nowrap">{play.frames}<span class="quiet ml-1">of {play.of} slots</span></span>
          <span class="figure whitespace-nowrap">{missed}<span class="quiet ml-1">missed</span></span>
          <span class="figure whitespace-nowrap">{left}<span class="quiet ml-1">s left</span></span>
        {/if}
        <button class="btn btn-xs" onclick={mark} disabled={!play.runId}>Mark <kbd class="figure">M</kbd></button>
        <div class="flex flex-1 flex-wrap items-center justify-end gap-x-4 gap-y-0.5">
          {#each worth as load, at (at)}
            <span class="flex items-center gap-1.5 text-xs">
              {load.name}
              {#if load.unit === '%'}
                <span class="inline-block h-2 w-14 bg-base-300" aria-hidden="true"><span class="block h-full bg-base-content/70" style:width="{Math.min(100, load.value)}%"></span></span>
              {/if}
              <span class="figure inline-block w-9 text-right">{load.unit === '%' ? Math.round(load.value) : load.value.toFixed(2)}</span>
              <span class="quiet">{load.unit}</span>
            </span>
          {/each}
        </div>
      </div>
    {/if}
    {#if play?.notes.length}<p class="mt-1 text-xs text-warning" data-testid="start-notes">Before it began: {play.notes.join('; ')}.</p>{/if}
    {#if marking}<MarkForm {...marking} onclose={(words) => ([marking, said] = [null, words ?? ''])} />{:else if said}<p role="status" class="mt-1 text-xs" data-testid="pinned">{said}</p>{/if}
    {#if waiting.length}
      <p class="mt-1 flex flex-wrap gap-x-4 text-xs" data-testid="waiting">
        <span class="quiet">Next:</span>
        {#each waiting as one (one.trialId)}
          <span>{kinds[one.kind].name} of {one.timelineTitle} on {one.machineName} <button class="link" aria-label="Remove {kinds[one.kind].name} on {one.machineName} from the queue" onclick={() => withdraw(one.trialId)}>remove</button></span>
        {/each}
      </p>
    {/if}
  </section>
{:else if live.answered && live.answered.kind !== 'play'}
  <div role="status" class="border-b border-base-300 bg-secondary/10 px-4 py-1.5 text-sm" data-testid="answered">
    <p><b class="font-semibold">{kinds[live.answered.kind].name} on {live.answered.machineName}:</b> {live.answered.problem ?? answer ?? 'it is over.'}
      <a class="link" href="/trials/{live.answered.trialId}">The whole trial</a></p>
  </div>
{/if}
