<script lang="ts">
  import type { Schemas } from '../api/client';
  import { fixed, percent } from '../words';

  let { lags }: { lags: Schemas['LagRow'][] } = $props();
  const ms = (value: number | null) => (value === null ? 'no picture' : fixed(value, 0));
  // One scale for all bars of the table, so that gestures can be compared by eye.
  const longest = $derived(Math.max(1, ...lags.map((lag) => lag.longestMs ?? 0)));
</script>

<table class="w-full text-sm" data-testid="lags">
  <thead class="quiet text-left">
    <tr>
      {#each ['gesture', 'requests', 'skipped', 'median ms', '95 % within ms', 'longest ms', 'drawn', 'within 0.1 s', 'within 1 s'] as head, i (i)}
        <th scope="col" class="px-2 py-0.5 font-normal {i && i !== 6 ? 'text-right' : ''}">{head}</th>
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each lags as lag, at (at)}
      <tr class="[&>td]:border-t [&>td]:border-base-200 [&>td]:px-2 [&>td]:py-0.5">
        <td>{lag.gesture}</td>
        {#each [lag.asked, lag.passedOver, ms(lag.medianMs), ms(lag.ninetyFifthMs), ms(lag.longestMs)] as value, i (i)}
          <td class="figure text-right">{value}</td>
        {/each}
        <td class="w-36">
          {#if lag.longestMs !== null}
            <span class="relative block h-3 border-b border-base-300" aria-hidden="true">
              <span class="absolute bottom-0 h-px bg-base-content" style:width="{(100 * lag.longestMs) / longest}%"></span>
              <span class="absolute bottom-0 h-1.5 bg-primary/40" style:width="{(100 * (lag.ninetyFifthMs ?? 0)) / longest}%"></span>
              <span class="absolute bottom-0 h-2.5 bg-primary" style:width="{(100 * (lag.medianMs ?? 0)) / longest}%"></span>
            </span>
          {/if}
        </td>
        <td class="figure text-right">{percent(lag.withinTenth)}</td>
        <td class="figure text-right">{percent(lag.withinSecond)}</td>
      </tr>
    {/each}
  </tbody>
</table>
