<script lang="ts">
  import type { Schemas } from '#lib/api/client.ts';
  import { fixed } from '#lib/words.ts';

  /** What the twin made of real runs, against what came: one dot a passage, on the line where both are the same. */
  let { predictions, words, band }: { predictions: Schemas['Prediction'][]; words: string | null; band: number } = $props();

  const [width, height, left, right, upper, lower] = [420, 300, 46, 14, 12, 40];
  const dots = $derived(
    predictions
      .filter((run) => run.isUnpaced)
      .flatMap((run) => run.passages.filter((passage) => passage.measured > 0 && passage.predicted > 0).map((passage) => ({ ...passage, run })))
  );
  const values = $derived(dots.flatMap((dot) => [dot.measured, dot.predicted]));
  /** 1, 2 and 5 of every power of ten: the axes go from the one below the least to the one above the most. */
  const steps = Array.from({ length: 8 }, (_, power) => [1, 2, 5].map((digit) => Number(`${digit}e${power - 3}`))).flat();
  const ends = $derived<[number, number]>([
    steps.findLast((step) => step <= Math.min(...values)) ?? steps[0], steps.find((step) => step >= Math.max(...values) && step > Math.min(...values)) ?? steps[steps.length - 1]
  ]);
  const share = (value: number) => Math.log(value / ends[0]) / Math.log(ends[1] / ends[0]);
  const x = (value: number) => left + share(value) * (width - left - right);
  const y = (value: number) => upper + (1 - share(value)) * (height - upper - lower);
  const ticks = $derived(steps.filter((step) => step >= ends[0] && step <= ends[1]));
  const wrong = $derived(predictions.filter((run) => !run.isDisturbed).flatMap((run) => run.passages.filter((passage) => passage.predictedVerdict && passage.measuredVerdict && passage.predictedVerdict !== passage.measuredVerdict).map((passage) => ({ ...passage, run }))));
</script>

<figure class="mb-3" data-testid="predicted">
  {#if words}<figcaption class="mb-1 text-sm font-semibold">Predicted and measured: <span class="font-normal">{words}</span></figcaption>{/if}
  {#if dots.length}
    <svg viewBox="0 0 {width} {height}" class="w-full max-w-md" role="img" aria-label="Sustained frames a second of {dots.length} passages, predicted against measured">
      {#each ticks as tick (tick)}
        <line x1={x(tick)} x2={x(tick)} y1={upper} y2={height - lower} class="stroke-base-300" />
        <line x1={left} x2={width - right} y1={y(tick)} y2={y(tick)} class="stroke-base-300" />
        <text x={x(tick)} y={height - lower + 14} text-anchor="middle" class="figure fill-current text-[12px]">{tick}</text>
        <text x={left - 6} y={y(tick) + 4} text-anchor="end" class="figure fill-current text-[12px]">{tick}</text>
      {/each}
      <line x1={x(ends[0])} y1={y(ends[0])} x2={x(ends[1])} y2={y(ends[1])} class="stroke-base-content/60" />
      {#each [1 + band, 1 / (1 + band)] as off (off)}
        <line x1={x(off > 1 ? ends[0] : ends[0] / off)} y1={y(off > 1 ? ends[0] * off : ends[0])} x2={x(off > 1 ? ends[1] / off : ends[1])} y2={y(off > 1 ? ends[1] : ends[1] * off)} class="stroke-base-content/40" stroke-dasharray="3 3" />
      {/each}
      {#each dots as dot, at (at)}
        <circle cx={x(dot.measured)} cy={y(dot.predicted)} r="4" class={dot.run.isDisturbed || dot.extrapolates ? 'fill-none stroke-primary' : 'fill-primary'}>
          <title>{dot.question} ({dot.run.timeline}): predicted {fixed(dot.predicted, 1)}, measured {fixed(dot.measured, 1)}{dot.extrapolates ? '; its footage lies outside what was measured' : ''}{dot.run.isDisturbed ? '; the run was disturbed and does not count' : ''}</title>
        </circle>
      {/each}
      <text x={(left + width - right) / 2} y={height - 6} text-anchor="middle" class="fill-current text-[12px]">measured, frames a second</text>
      <text x="12" y={(upper + height - lower) / 2} text-anchor="middle" transform="rotate(-90 12 {(upper + height - lower) / 2})" class="fill-current text-[12px]">predicted</text>
    </svg>
    <p class="quiet text-xs">One dot per passage of a capacity trial; the dashed lines mark the band. Hollow: the run was disturbed, or the footage lies outside what was measured.</p>
  {:else}
    <p class="quiet text-sm">Play a capacity trial on this machine to compare rates.</p>
  {/if}
  {#if wrong.length}
    <details class="mt-1 text-sm"><summary>{wrong.length} {wrong.length === 1 ? 'passage' : 'passages'} have another verdict</summary>
      <ul>{#each wrong as passage, at (at)}<li><a class="link" href="/runs/{passage.run.runId}">run {passage.run.runId}</a>, {passage.question}: predicted {passage.predictedVerdict}, measured {passage.measuredVerdict}</li>{/each}</ul>
    </details>
  {/if}
</figure>
