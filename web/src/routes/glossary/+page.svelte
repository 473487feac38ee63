<script lang="ts">
  import { glossary } from '#lib/glossary.ts';
</script>

<svelte:head><title>Glossary · Hardy Bench</title></svelte:head>
<div class="max-w-4xl p-4">
  <h1 class="text-lg font-semibold">Glossary</h1>
  <p class="quiet mb-3 text-sm">What the terms on these pages mean. <a class="link" href="/timelines">To the timelines</a></p>
  <dl class="grid gap-x-6 gap-y-1.5 sm:grid-cols-[14rem_1fr]" data-testid="glossary">
    {#each glossary as [word, meaning] (word)}
      <dt class="font-semibold">{word}</dt>
      <dd class="mb-1.5 sm:mb-0">{meaning}</dd>
    {/each}
  </dl>
</div>
