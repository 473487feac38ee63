<script lang="ts">
  import { api, orThrow, type Advice } from '#lib/api/client.ts';
  import VerdictMark from '#lib/VerdictMark.svelte';
  import { limiterWord, money } from '#lib/words.ts';

  /** Which of the machines that have played a timeline to take. */
  let { timeline: wanted }: { timeline: string } = $props();
  let advice = $state<Advice | null>(null);
  let title = $state('');
  let problem = $state<string | null>(null);

  $effect(() => {
    read(wanted).catch((failure) => (problem = (failure as Error).message));
  });

  async function read(wanted: string) {
    const timelines = orThrow(await api.GET('/api/timelines'));
    const timeline = timelines.find((one) => one.id === wanted) ?? timelines[0];
    title = timeline.title;
    advice = orThrow(await api.POST('/api/timelines/{id}/advice', { params: { path: { id: timeline.id } } }));
  }
</script>

<div class="max-w-4xl p-4">
  {#if problem}
    <p role="alert" class="text-error">{problem}</p>
  {:else if advice}
    <p class="quiet text-sm">To play <a class="link" href="/timelines/{advice.timeline}">{title}</a> in real time at full scale, every aid off</p>
    <h1 class="mt-1 text-3xl font-semibold" data-testid="advice-pick">
      {advice.machineName ? `Recommended: ${advice.machineName}` : 'No machine holds it'}
      {#if advice.machineId}<span class="figure ml-3 text-xl font-normal">{money(advice.price ?? null, advice.currency)}</span>{/if}
    </h1>
    <p class="mt-2 text-lg">{advice.reason}</p>
    <h2 class="mt-8 mb-2 font-semibold">Why the others were not chosen</h2>
    <table class="w-full text-sm">
      <thead class="bg-base-200 text-left">
        <tr>
          {#each ['machine', 'price', 'fails first at', 'limiter', 'why'] as head (head)}
            <th scope="col" class="border-b border-base-300 px-3 py-1.5 font-semibold {head === 'price' ? 'text-right' : ''}">{head}</th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each advice.others as other (other.machineId)}
          <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-3 [&>td]:py-2 [&>td]:align-top">
            <td class="font-semibold whitespace-nowrap">{other.machineName}</td>
            <td class="figure text-right whitespace-nowrap">{money(other.price ?? null, advice.currency)}</td>
            <td class="whitespace-nowrap">
              {#if other.firstFailingPassage}
                <a class="link" href="/timelines/{advice.timeline}?cell={other.machineId}:{other.firstFailingPassage}">passage {other.firstFailingPassage}</a>
                <span class="block"><VerdictMark verdict={other.verdict ?? null} /></span>
              {:else}—{/if}
            </td>
            <td>{limiterWord(other.limiter ?? null) || '—'}</td>
            <td>{other.why}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="mt-4 text-sm"><a class="link" href="/advice">Answer a brief instead</a>: with a budget, the machine that you own, and machines built from parts.</p>
    <p class="quiet mt-4 text-sm">Stand-ins are simulated; this machine is judged by its newest finished bare run.</p>
  {:else}
    <p class="quiet">Reading…</p>
  {/if}
</div>
