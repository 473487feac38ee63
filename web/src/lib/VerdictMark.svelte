<script lang="ts">
  import type { Verdict } from './api/client';
  import { verdictWord } from './words';

  let { verdict }: { verdict: Verdict | null } = $props();
  const colour = $derived(
    verdict === 'holds' ? 'text-primary' : verdict === 'wavers' ? 'text-warning' : verdict === 'breaks' ? 'text-error' : 'quiet'
  );
</script>

<!-- The bar is whole, notched or parted, so that the word is not needed to tell them apart. -->
<span class="inline-flex items-center gap-1.5 font-semibold {colour}">
  <svg width="22" height="9" viewBox="0 0 22 9" fill="currentColor" aria-hidden="true">
    {#if verdict === 'holds'}
      <rect y="1" width="22" height="7" />
    {:else if verdict === 'wavers'}
      <path d="M0 1h7l4 4 4-4h7v7H0z" />
    {:else if verdict === 'breaks'}
      <path d="M0 1h8l-3 7H0zM14 1h8v7H11z" />
    {:else}
      <rect y="4" width="22" height="1" />
    {/if}
  </svg>
  {verdictWord(verdict)}
</span>
