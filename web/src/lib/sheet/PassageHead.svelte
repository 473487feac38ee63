<script lang="ts">
  import type { PassageHead } from '../api/client';

  let { passage, lit }: { passage: PassageHead; lit: boolean } = $props();
</script>

<th scope="row" class="sticky left-0 z-10 border-r border-b border-base-300 px-2.5 py-0.5 text-left align-top font-normal {lit ? 'bg-base-300' : 'bg-base-100'}">
  <div class="@container"><div class="flex items-baseline gap-2">
    <span class="figure w-5 shrink-0 text-right font-semibold">{passage.number}</span>
    <span class="leading-tight">{passage.question}</span>
    <span class="figure quiet ml-auto hidden text-xs @2xs:inline">{passage.start}</span>
  </div></div>
  <div class="ml-7 flex flex-wrap gap-x-1 gap-y-0.5">
    {#each passage.chips as chip, at (at)}
      <span class="rounded-sm bg-base-200 px-1 text-xs leading-4 whitespace-nowrap">{chip}</span>
    {/each}
  </div>
  <div class="mt-0.5 ml-7 h-[3px] bg-base-200" role="img" aria-label="Load: {Math.round(passage.weight * 100)} % of the most demanding passage">
    <div class="h-full bg-base-content/60" style:width="{Math.max(1, passage.weight * 100)}%"></div>
  </div>
</th>
