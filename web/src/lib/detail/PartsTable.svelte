<script lang="ts">
  import type { Schemas } from '../api/client';
  import { fixed } from '../words';

  /** What each part of the machine did over the passage and what it could do, the tightest first. */
  let { parts, decodedOn }: { parts: Schemas['PartRow'][]; decodedOn: string[] } = $props();
</script>

{#if decodedOn.length}<p class="text-sm">Decoded on: {decodedOn.join(', ')}.</p>{/if}
{#if parts.length}
  <table class="w-full text-sm" data-testid="parts">
    <caption class="pb-1 text-left font-semibold">Parts of the machine <span class="quiet font-normal">below 1 it cannot reach the required rate{parts.some((part) => part.headroom == null && part.use >= 0.001) ? '; where frames of a GOP were left out, a capacity trial shows it' : ''}</span></caption>
    <thead class="quiet text-xs">
      <tr><th scope="col" class="text-left font-normal">part</th><th scope="col" class="w-16 text-right font-normal">load</th><th scope="col" class="w-24 text-right font-normal">headroom</th></tr>
    </thead>
    <tbody>
      {#each parts as part (part.part)}
        <tr class="border-b border-base-200">
          <th scope="row" class="py-0.5 text-left font-normal">{part.part}</th>
          <td class="figure text-right">{fixed(100 * part.use, 0)} %</td>
          <td class="figure text-right {part.headroom != null && part.headroom < 1 ? 'font-semibold' : ''}">{part.headroom == null ? (part.use < 0.001 ? 'idle' : 'not known') : `${fixed(part.headroom, part.headroom < 10 ? 2 : 0)}×`}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
