<script lang="ts">
  import { fixed } from '../words';

  /** The temperature at the end of each round of a soak. */
  let { celsius }: { celsius: (number | null)[] } = $props();

  const [width, height, left, right, upper, lower] = [520, 150, 44, 12, 10, 26];
  const known = $derived(celsius.flatMap((value, round) => (value === null ? [] : [{ round, value }])));
  const low = $derived(Math.floor(Math.min(...known.map((one) => one.value)) / 10) * 10);
  const high = $derived(Math.ceil((Math.max(...known.map((one) => one.value)) + 0.1) / 10) * 10);
  const x = (round: number) => left + (round / Math.max(1, celsius.length - 1)) * (width - left - right);
  const y = (value: number) => upper + ((high - value) / (high - low)) * (height - upper - lower);
</script>

{#if known.length > 1}
  <figure class="px-4 py-2" data-testid="soak-curve">
    <figcaption class="text-sm font-semibold">Temperature at the end of each round, °C</figcaption>
    <svg viewBox="0 0 {width} {height}" class="w-full max-w-xl" role="img" aria-label="From {fixed(known[0].value, 0)} to {fixed(known[known.length - 1].value, 0)} degrees Celsius in {celsius.length} rounds">
      {#each [low, (low + high) / 2, high] as line (line)}
        <line x1={left} x2={width - right} y1={y(line)} y2={y(line)} class="stroke-base-300" />
        <text x={left - 6} y={y(line) + 4} text-anchor="end" class="figure fill-current text-[12px]">{line}</text>
      {/each}
      <polyline points={known.map((one) => `${x(one.round)},${y(one.value)}`).join(' ')} fill="none" class="stroke-primary" stroke-width="2" />
      {#each known as one (one.round)}<circle cx={x(one.round)} cy={y(one.value)} r="3" class="fill-primary"><title>Round {one.round + 1}: {fixed(one.value, 1)} °C</title></circle>{/each}
      <text x={left} y={height - 6} class="fill-current text-[12px]">round 1</text>
      <text x={width - right} y={height - 6} text-anchor="end" class="fill-current text-[12px]">round {celsius.length}</text>
    </svg>
  </figure>
{/if}
