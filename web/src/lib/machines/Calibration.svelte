<script lang="ts">
  import { api, orThrow, type Schemas } from '#lib/api/client.ts';
  import { live } from '#lib/live.svelte.ts';
  import { moment, fixed } from '#lib/words.ts';
  import Predicted from './Predicted.svelte';

  let known = $state<Schemas['CalibrationView'] | null>(null);
  let problem = $state('');

  const now = $derived(live.calibrating ?? known?.now ?? null);
  const measured = $derived(known?.newest ?? null);

  const trying = async (work: () => Promise<void>) => {
    problem = '';
    try {
      await work();
    } catch (failure) {
      problem = (failure as Error).message;
    }
  };

  // Read again when a run or a calibration has ended.
  $effect(() => {
    void [live.ended, live.calibrating?.running];
    void trying(async () => {
      known = orThrow(await api.GET('/api/calibration'));
    });
  });

  const begin = () => trying(live.calibrate);
  const stop = () => trying(async () => void orThrow(await api.DELETE('/api/calibration')));
  const withHalf = (value: number, half: number) => `${fixed(value, 2)} ± ${fixed(half, 2)}`;
</script>

<section class="mt-6 max-w-4xl" aria-label="Measured">
  <div class="mb-2 flex flex-wrap items-center gap-3">
    <h3 class="text-base font-semibold">Measured costs</h3>
    {#if now?.running}
      <progress class="progress progress-primary w-40" value={now.share} max="1" aria-label="Measuring"></progress>
      <span class="text-sm" role="status">{now.clip ?? 'begins'}, <span class="figure">{Math.round(now.share * 100)}</span> %</span>
      <button class="btn btn-sm" onclick={stop}>Cancel</button>
    {:else}
      <button class="btn btn-sm" class:btn-primary={!measured} onclick={begin}>{measured ? 'Measure again' : 'Measure this machine'}</button>
      {#if measured}<a class="link text-sm" href="/api/calibration/export" download="calibration.json">export as json</a>{/if}
    {/if}
  </div>
  {#if problem || now?.problem}<p role="alert" class="mb-2 text-sm text-error">{problem || now?.problem}</p>{/if}
  {#if measured}
    {#if measured.outdated}<p class="mb-2 max-w-prose text-sm text-warning" role="status" data-testid="outdated">{measured.outdated}</p>{/if}
    <p class="mb-2 max-w-prose text-sm" data-testid="calibration">{measured.words}</p>
    <p class="quiet mb-3 max-w-prose text-sm">
      Measured {moment(measured.at)} in {Math.round(measured.seconds)} s{#if measured.readMegabytesPerSecond}; footage came from its drive at {Math.round(measured.readMegabytesPerSecond)} MB/s{/if}.
      <a class="link" href="?id={measured.twinId}">Its twin</a> is among the machines and plays with these costs.
    </p>
    {#if known?.predictions.length}<Predicted predictions={known.predictions} words={known.words ?? null} band={measured.band} />{/if}
    <details class="mb-2 text-sm">
      <summary>Decoding, ns on the reference core</summary>
      <table class="mt-1">
        <thead class="quiet text-left text-xs"><tr><th class="pr-6 font-normal">codec</th><th class="pr-6 text-right font-normal">per byte of samples</th><th class="pr-6 text-right font-normal">per bit of data</th><th class="text-right font-normal">serial share of each</th></tr></thead>
        <tbody>
          {#each measured.costs as cost (cost.name)}
            <tr class="border-t border-base-300"><th scope="row" class="py-1 pr-6 text-left font-normal">{cost.name}</th><td class="figure pr-6 text-right">{withHalf(cost.perSampleByte, cost.perSampleByteHalf)}</td><td class="figure pr-6 text-right">{withHalf(cost.perBit, cost.perBitHalf)}</td><td class="figure text-right">{Math.round(cost.serialPart * 100)} %, {Math.round(cost.bitsSerialPart * 100)} %</td></tr>
          {/each}
        </tbody>
      </table>
    </details>
    <details class="mb-2 text-sm">
      <summary>Decoded clips, ms per frame on one thread</summary>
      <table class="mt-1">
        <thead class="quiet text-left text-xs"><tr><th class="pr-6 font-normal">format</th><th class="pr-6 text-right font-normal">measured</th><th class="pr-6 text-right font-normal">fitted</th><th class="text-right font-normal">error</th></tr></thead>
        <tbody>
          {#each measured.decoding as row (row.clip)}
            <tr class="border-t border-base-300"><th scope="row" class="py-1 pr-6 text-left font-normal">{row.format}</th><td class="figure pr-6 text-right">{fixed(row.measuredMs, 1)}</td><td class="figure pr-6 text-right">{fixed(row.fittedMs, 1)}</td><td class="figure text-right">{Math.round((row.fittedMs / row.measuredMs - 1) * 100)} %</td></tr>
          {/each}
        </tbody>
      </table>
    </details>
    <details class="text-sm">
      <summary>Effects, ns per pixel on the reference core</summary>
      <table class="mt-1">
        <thead class="quiet text-left text-xs"><tr><th class="pr-6 font-normal">work</th><th class="pr-6 text-right font-normal">8 bit</th><th class="text-right font-normal">above</th></tr></thead>
        <tbody>
          {#each measured.treating as row (row.name)}
            <tr class="border-t border-base-300"><th scope="row" class="py-1 pr-6 text-left font-normal">{row.name}</th><td class="figure pr-6 text-right">{row.nanoseconds == null ? '–' : fixed(row.nanoseconds, 1)}</td><td class="figure text-right">{row.deepNanoseconds == null ? '–' : fixed(row.deepNanoseconds, 1)}</td></tr>
          {/each}
        </tbody>
      </table>
    </details>
  {:else if !now?.running}
    <p class="quiet max-w-prose text-sm">Not measured yet. Measuring takes two to three minutes; close other programs first. The first time takes some minutes longer, because clips are created. Then a twin of this machine predicts how it plays and what each change would gain.</p>
  {/if}
</section>
