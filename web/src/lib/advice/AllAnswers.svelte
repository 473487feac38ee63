<script lang="ts">
  import { api } from '#lib/api/client.ts';
  import { live } from '#lib/live.svelte.ts';
  import { chanceOf, fixed, money } from '#lib/words.ts';
  import type { Answer, Brief } from './briefs.svelte.ts';

  /** What every brief that is kept comes to, side by side. */
  let { briefs, onchoose }: { briefs: Brief[]; onchoose: (id: string) => void } = $props();
  let answers = $state<Record<string, Answer | string>>({});

  // One after another: each takes the whole processor for a moment.
  $effect(() => {
    void live.ended;
    const ids = briefs.map((brief) => brief.id);
    const stop = new AbortController();
    (async () => {
      for (const id of ids) {
        const { data, error } = await api.GET('/api/briefs/{id}/answer', { params: { path: { id } }, signal: stop.signal });
        if (stop.signal.aborted) return;
        answers[id] = data ?? (error as { detail?: string } | undefined)?.detail ?? 'could not be computed';
      }
    })().catch(() => undefined);
    return () => stop.abort();
  });
</script>

<table class="w-full text-sm" data-testid="all-answers">
  <caption class="mb-1 text-left font-semibold">All briefs side by side</caption>
  <thead class="bg-base-200 text-left">
    <tr>{#each ['brief', 'recommendation', 'budget', 'cheapest that plays all of it', 'headroom', 'probability that all of it plays', 'limits first'] as head (head)}<th scope="col" class="border-b border-base-300 px-2 py-1 font-semibold">{head}</th>{/each}</tr>
  </thead>
  <tbody>
    {#each briefs as brief (brief.id)}
      {@const answer = answers[brief.id]}
      <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-2 [&>td]:py-1 [&>td]:align-top">
        <td><button data-prints class="link text-left" onclick={() => onchoose(brief.id)}>{brief.name}</button></td>
        {#if answer === undefined}<td colspan="6" class="quiet">computing…</td>
        {:else if typeof answer === 'string'}<td colspan="6" class="text-error">{answer}</td>
        {:else}
          {@const step = answer.steps[0]}
          <td>{answer.headline}</td>
          <td class="figure whitespace-nowrap">{brief.budget == null ? 'any' : money(brief.budget, answer.currency)}</td>
          {#if step}
            <td>{step.name}, <span class="figure">{money(step.price, answer.currency)}</span></td>
            <td class="figure">{fixed(step.headroom, 2)}</td>
            <td class="figure">{chanceOf(step.chance)}</td>
            <td>{step.weakest}</td>
          {:else}<td colspan="4" class="quiet">none on offer</td>{/if}
        {/if}
      </tr>
    {/each}
  </tbody>
</table>
