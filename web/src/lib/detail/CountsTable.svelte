<script lang="ts">
  import type { Schemas } from '../api/client';
  import { fixed, reasonWord } from '../words';

  let { row }: { row: Schemas['PassageRow'] } = $props();
  const lines = $derived([
    ['slots', row.slots, ''],
    ['on time', row.onTime, ''],
    ['late', row.late, row.late ? `${fixed(row.latenessMs)} ms, median` : ''],
    ['overdue', row.overdue, row.overdue ? `${fixed(row.overdueByMs, 0)} ms, median; ${fixed(row.longestOverdueMs, 0)} ms at most` : ''],
    ['dropped in the first second', row.startUpDrops, ''],
    ['dropped later', row.steadyDrops, ''],
    ['missed after the first second', row.steadyMisses, row.slots ? `${fixed((100 * row.steadyMisses) / row.slots)} %` : ''],
    ...(row.number > 1 ? [['recovery after the cut', row.recoveryMs == null ? 'none' : fixed(row.recoveryMs, 0), row.recoveryMs == null ? '' : 'ms']] : []),
    ['longest freeze', fixed(row.longestFreezeMs, 0), 'ms'],
    ['unevenness of frame gaps', fixed(row.gapDeviationMs), 'ms'],
    ['wasted', row.wastedFrames, row.wastedShare ? `${fixed(100 * row.wastedShare)} % of the work` : ''],
    ...(row.slipMs ? [['clock slipped', fixed(row.slipMs, 0), 'ms']] : []),
    ['display late (the player itself)', fixed(row.toolLatenessMs, 2), 'ms, 99th percentile']
  ]);
  const reasons = $derived(Object.entries(row.dropsByReason) as [Schemas['DropReason'], number][]);
</script>

<table class="w-full text-sm">
  <caption class="pb-1 text-left font-semibold">Counts</caption>
  <tbody>
    {#each lines as [name, value, note] (name)}
      <tr class="border-b border-base-200">
        <th scope="row" class="py-0.5 text-left font-normal">{name}</th>
        <td class="figure w-16 text-right">{value}</td>
        <td class="quiet w-32 pl-2 text-xs">{note}</td>
      </tr>
    {/each}
    {#each reasons as [reason, count] (reason)}
      <tr class="border-b border-base-200">
        <th scope="row" class="quiet py-0.5 pl-4 text-left font-normal">{reasonWord[reason]}</th>
        <td class="figure quiet w-16 text-right">{count}</td>
        <td></td>
      </tr>
    {/each}
  </tbody>
</table>
