<script lang="ts">
  let { id, byHand = false }: { id: number; byHand?: boolean } = $props();
  const files = $derived([
    ['run.json', 'JSON'],
    ...(byHand ? [['lags.csv', 'lags as CSV']] : [['frames.csv', 'frames as CSV']]),
    ['loads.csv', 'loads as CSV'],
    ['frames.parquet', 'Parquet'],
    ['trace.json', 'frame trace']
  ]);
</script>

<p class="text-sm">
  <span class="quiet">Run {id} as</span>
  {#each files as [file, words], i (file)}{i ? ' · ' : ' '}<a class="link" href="/api/runs/{id}/{file}" download={file === 'run.json' ? `run-${id}.json` : ''}>{words}</a>{/each}
</p>
