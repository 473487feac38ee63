<script lang="ts">
  import { live } from './live.svelte';

  const judging = $derived(live.judging);
</script>

{#if judging && judging.done < judging.of}
  <div class="print:hidden flex items-center gap-3 border-b border-base-300 px-4 py-1.5 text-sm" role="status" data-testid="judging">
    <span>After an update, runs are judged again by the new rules, the newest first:</span>
    <progress class="progress progress-primary w-56" value={judging.done} max={judging.of} aria-label="Runs judged again"></progress>
    <span class="figure quiet">{judging.done} of {judging.of}</span>
  </div>
{/if}
