<script lang="ts">
  import uPlot from 'uplot';
  import type { Schemas } from '../api/client';
  import { theme } from '../theme.svelte';

  let { title, series, seconds, marked }: { title: string; series: Schemas['LoadSeries'][]; seconds: number; marked: number[] } = $props();
  let box: HTMLDivElement;

  /** Many cores would be a tangle of lines: from four on, their mean and their highest tell the same. */
  const shown = $derived(series.length > 3 && series[0].unit === '%' ? summary(series) : series);
  const unit = $derived(series[0].unit);
  // Some are read once a second, others ten times; one axis holds the moments of all.
  const moments = $derived([...new Set(shown.flatMap((one) => one.at))].sort((a, b) => a - b));
  const means = $derived(shown.map((one) => [one.name, mean(one.values)] as const));

  const mean = (values: number[]) => values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);

  /** The next round figure, at which the axis ends. */
  function top(max: number) {
    if (max <= 0) return 1;
    const step = 10 ** Math.floor(Math.log10(max)) / 2;
    return Math.ceil((max * 1.02) / step) * step;
  }

  function onMoments(one: Schemas['LoadSeries']) {
    const at = new Map(one.at.map((ms, i) => [ms, one.values[i]]));
    return moments.map((ms) => at.get(ms) ?? null);
  }

  function summary(all: Schemas['LoadSeries'][]): Schemas['LoadSeries'][] {
    const across = (pick: (values: number[]) => number) => all[0].at.map((_, i) => pick(all.map((one) => one.values[i] ?? 0)));
    return [
      { ...all[0], name: `mean of ${all.length}`, values: across(mean) },
      { ...all[0], name: 'highest', values: across((values) => Math.max(...values)) }
    ];
  }

  /** The moments that a person pinned, at the same places as on the comb. */
  function drawMarks(chart: uPlot, ink: string) {
    chart.ctx.fillStyle = ink;
    for (const second of marked) chart.ctx.fillRect(Math.round(chart.valToPos(second, 'x', true)), chart.bbox.top, 1, chart.bbox.height);
  }

  $effect(() => {
    void theme.dark;
    const style = getComputedStyle(box);
    const colours = ['--color-primary', '--color-accent', '--color-error', '--color-secondary'].map((name) => style.getPropertyValue(name));
    const grid = { stroke: style.getPropertyValue('--color-base-300'), width: 1 };
    const ink = style.getPropertyValue('--color-base-content');
    const font = '11px "Atkinson Hyperlegible Mono"';
    const chart = new uPlot(
      {
        width: box.clientWidth,
        height: 84,
        legend: { show: false },
        cursor: { show: false },
        scales: { x: { time: false, range: [0, seconds] }, y: { range: (_, __, max) => [0, shown[0].limit ?? top(max)] } },
        axes: [
          { stroke: ink, grid, font, size: 22, ticks: { show: false }, values: (_, ticks) => ticks.map((t) => `${t} s`) },
          { stroke: ink, grid, font, size: 40, ticks: { show: false }, splits: (drawn) => [0, drawn.scales.y.max!], values: (_, ticks) => ticks.map((t) => `${+t.toPrecision(2)}`) }
        ],
        hooks: { draw: [(chart) => drawMarks(chart, ink)] },
        series: [{}, ...shown.map((one, i) => ({ label: one.name, stroke: colours[i % 4], width: 1.5, spanGaps: true, dash: i ? [4 + i * 2, 3] : undefined }))]
      },
      [moments.map((ms) => ms / 1000), ...shown.map(onMoments)],
      box
    );
    const resized = new ResizeObserver(() => chart.setSize({ width: box.clientWidth, height: 84 }));
    resized.observe(box);
    return () => {
      resized.disconnect();
      chart.destroy();
    };
  });
</script>

<section>
  <h3 class="flex flex-wrap items-baseline gap-x-3 text-sm">
    <b class="font-semibold">{title}</b> <span class="quiet text-xs">{unit}</span>
    {#each means as [name, value], i (name)}
      <span class="quiet text-xs">{i ? '- - ' : '— '}{name}, mean <span class="figure">{value.toFixed(unit === '%' ? 0 : 2)}</span></span>
    {/each}
  </h3>
  <div bind:this={box} class="w-full" role="img" aria-label="{title} over the passage: {means.map(([name, value]) => `${name} ${value.toFixed(2)} ${unit} on average`).join(', ')}"></div>
</section>
