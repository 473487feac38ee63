<script lang="ts">
  import type { Schemas } from '#lib/api/client.ts';
  import VerdictMark from '#lib/VerdictMark.svelte';
  import { fixed, limiterWord, chanceOf } from '#lib/words.ts';

  /** A machine on the work, passage by passage: each figure by its run or by the model. */
  let { check, several }: { check: Schemas['CheckRow']; several: boolean } = $props();
</script>

<table class="w-full text-sm">
  <thead class="bg-base-200 text-left">
    <tr>
      {#each ['passage', 'verdict', 'shown', 'headroom', 'probability that it holds', 'why'] as head (head)}<th scope="col" class="border-b border-base-300 px-2 py-1 font-semibold">{head}</th>{/each}
    </tr>
  </thead>
  <tbody>
    {#each check.passages as passage (passage.timeline + passage.number)}
      <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-2 [&>td]:py-1 [&>td]:align-top">
        <td>{#if several}<span class="quiet">{passage.timeline}</span>{/if} {passage.number} {passage.question}</td>
        <td><VerdictMark verdict={passage.verdict ?? null} /></td>
        <td class="figure">{fixed(passage.shownRate)}</td>
        <td class="figure">{passage.headroom == null ? '—' : `${fixed(passage.headroom, 2)}×`}</td>
        <td class="figure">{passage.chance == null ? '—' : chanceOf(passage.chance)}</td>
        <td>
          {#if passage.limiter}<span class="font-semibold">{limiterWord(passage.limiter)}:</span> {passage.evidence}{:else if passage.tightest}{passage.tightest} limits first{/if}
          {#if passage.runId}<a class="link" href="/runs/{passage.runId}">run {passage.runId}</a>{/if}
        </td>
      </tr>
    {/each}
  </tbody>
</table>
