<script lang="ts">
  import { fixed, money } from '#lib/words.ts';
  import type { Answer } from './briefs.svelte.ts';

  /** What more money buys: the least headroom over all of the work, against the price. */
  let { answer }: { answer: Answer } = $props();

  const [width, height, left, right, upper, lower] = [620, 190, 44, 24, 12, 34];
  const steps = $derived(answer.steps);
  const budget = $derived(answer.brief.budget ?? null);
  const most = $derived(Math.max(...steps.map((step) => step.price), budget ?? 0) * 1.04);
  const least = $derived(Math.min(...steps.map((step) => step.price), budget ?? Infinity) * 0.9);
  const top = $derived(Math.max(1.5, Math.ceil(Math.max(...steps.map((step) => step.headroom)))));
  const x = (price: number) => left + ((price - least) / (most - least)) * (width - left - right);
  const y = (headroom: number) => upper + (1 - headroom / top) * (height - upper - lower);
  const path = $derived(steps.map((step, at) => (at === 0 ? `M${x(step.price)},${y(step.headroom)}` : `H${x(step.price)}V${y(step.headroom)}`)).join('') + `H${width - right}`);
  const lines = $derived([...new Set([1, top / 2, top])]);
</script>

<figure data-testid="price-curve">
  <svg viewBox="0 0 {width} {height}" class="w-full max-w-2xl" role="img" aria-label="Headroom against price: {steps.map((step) => `${money(step.price, answer.currency)} ${fixed(step.headroom)}`).join(', ')}">
    {#each lines as line (line)}
      <line x1={left} x2={width - right} y1={y(line)} y2={y(line)} class="stroke-base-300" stroke-dasharray={line === 1 ? '4 3' : null} />
      <text x={left - 6} y={y(line) + 4} text-anchor="end" class="figure fill-current text-[12px]">{fixed(line)}×</text>
    {/each}
    {#if budget}
      <line x1={x(budget)} x2={x(budget)} y1={upper} y2={height - lower} class="stroke-secondary" stroke-dasharray="2 3" />
      <text x={x(budget)} y={height - lower + 28} text-anchor="middle" class="fill-current text-[12px]">budget</text>
    {/if}
    <path d={path} fill="none" class="stroke-primary" stroke-width="2" />
    {#each steps as step (step.price)}
      <rect x={x(step.price) - 3.5} y={y(step.headroom) - 3.5} width="7" height="7" class={step.withinBudget ? 'fill-primary' : 'fill-base-content/40'}><title>{step.name}, {money(step.price, answer.currency)}</title></rect>
    {/each}
    {#each [steps[0], steps[steps.length - 1]] as end, at (at)}
      {#if at === 0 || steps.length > 1}<text x={x(end.price)} y={height - lower + 14} text-anchor={at === 0 ? 'start' : 'end'} class="figure fill-current text-[12px]">{money(end.price, answer.currency)}</text>{/if}
    {/each}
  </svg>
  <figcaption class="quiet text-xs">Each square is the cheapest with so much headroom in its most demanding passage. Beyond the last one, more money buys nothing more.</figcaption>
</figure>
