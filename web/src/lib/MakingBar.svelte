<script lang="ts">
  import { api } from './api/client';
  import { live } from './live.svelte';

  const making = $derived(live.making);
  const left = $derived(making?.secondsLeft == null ? '' : `about ${Math.max(1, Math.round(making.secondsLeft))} s left`);
</script>

{#if making?.running}
  <div class="print:hidden flex items-center gap-3 border-b border-base-300 px-4 py-1.5 text-sm" role="status" data-testid="making">
    <span>Creating clips: <b class="font-semibold">{making.clip ?? 'starting'}</b></span>
    <progress class="progress progress-primary w-56" value={making.share} max="1" aria-label="Clips created"></progress>
    <span class="figure quiet">{making.done} of {making.of}</span>
    <span class="quiet">{left}</span>
    <button class="btn btn-ghost btn-xs" onclick={() => api.DELETE('/api/clips/making')}>Cancel</button>
    <span class="quiet ml-auto">Stand-ins can already play.</span>
  </div>
{:else if making?.wasCancelled}
  <p class="quiet border-b border-base-300 px-4 py-1.5 text-sm" role="status" data-testid="cancelled">Creating clips was cancelled. The clips that were finished stay.</p>
{:else if making?.problem}
  <p class="border-b border-base-300 px-4 py-1.5 text-sm text-error" role="alert">{making.problem}</p>
{/if}
