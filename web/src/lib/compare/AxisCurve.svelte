<script lang="ts">
  import type { Schemas } from '../api/client';
  import { axisX, axisTop } from './axis';
  import { fixed } from '../words';

  /** What is shown along the one thing in which the sides differ: the mean over passages as a line, every passage as a thin one. */
  let { axis, passages }: { axis: Schemas['AxisView']; passages: { number: number; shares: (number | null)[] }[] } = $props();

  const [width, height, left, right, upper, lower] = [560, 176, 44, 16, 14, 42];
  const top = $derived(axisTop([...axis.points.map((point) => Number(point.share) + Number(point.half ?? 0)), ...passages.flatMap((passage) => passage.shares.map((share) => share ?? 0))]));
  const places = $derived(axisX(axis.points.map((point) => Number(point.value))));
  const x = (place: number) => left + places[place] * (width - left - right);
  const y = (share: number) => upper + (1 - share / top) * (height - upper - lower);
  const line = (shares: (number | null)[]) => shares.map((share, place) => (share == null ? '' : `${x(place)},${y(share)}`)).filter(Boolean).join(' ');
  const lines = $derived([...new Set([0, top / 2, Math.min(1, top), top])].sort((a, b) => a - b));
</script>

<figure class="max-w-2xl" data-testid="axis-curve">
  <svg viewBox="0 0 {width} {height}" class="w-full" role="img" aria-label="Frames shown {axis.hasSizes ? 'along' : 'by'} {axis.about}: {axis.points.map((point) => `${point.text} ${fixed(100 * Number(point.share), 0)} %`).join(', ')}">
    {#each lines as share (share)}
      <line x1={left} x2={width - right} y1={y(share)} y2={y(share)} class="stroke-base-300" stroke-dasharray={share === 1 ? '4 3' : null} />
      <text x={left - 6} y={y(share) + 4} text-anchor="end" class="figure fill-current text-[12px]">{fixed(100 * share, 0)} %</text>
    {/each}
    {#each passages as passage (passage.number)}
      <polyline points={line(passage.shares)} fill="none" class="stroke-base-content/30" stroke-width="1" />
    {/each}
    {#if axis.hasSizes}
      <line x1={x(axis.knee)} x2={x(axis.knee)} y1={upper} y2={height - lower} class="stroke-secondary" stroke-dasharray="2 3" />
      <polyline points={line(axis.points.map((point) => Number(point.share)))} fill="none" class="stroke-primary" stroke-width="2.5" />
    {/if}
    {#each axis.points as point, place (point.side)}
      {#if point.half}<line x1={x(place)} x2={x(place)} y1={y(Number(point.share) - Number(point.half))} y2={y(Number(point.share) + Number(point.half))} class="stroke-primary" stroke-width="1.5" />{/if}
      <rect x={x(place) - 4} y={y(Number(point.share)) - 4} width="8" height="8" class={place === axis.knee ? 'fill-secondary' : 'fill-primary'} />
      <text x={x(place)} y={height - lower + (place % 2 ? 32 : 17)} text-anchor={place === 0 ? 'start' : place === axis.points.length - 1 ? 'end' : 'middle'} class="figure fill-current text-[12px]">{point.text}</text>
    {/each}
  </svg>
  <figcaption class="quiet text-xs">
    Frames shown of those required, the mean over passages (thick, with its 95 % interval where it was repeated) and each passage (thin),
    {#if axis.hasSizes}along {axis.about}; the dotted line stands where no more is gained.{:else}by {axis.about}, the one that shows most on the right.{/if}
  </figcaption>
</figure>
