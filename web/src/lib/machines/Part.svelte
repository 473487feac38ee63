<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A part of a machine: its name at the left, its fields beside it. */
  let { name, onremove = undefined, children }: { name: string; onremove?: () => void; children: Snippet } = $props();
</script>

<fieldset class="flex flex-wrap border-t border-base-300 pt-2">
  <legend class="sr-only">{name}</legend>
  <div class="w-36 shrink-0 pt-1">
    <span class="font-semibold" aria-hidden="true">{name}</span>
    {#if onremove}<button class="link block text-xs" type="button" onclick={onremove} aria-label="Remove {name}">remove</button>{/if}
  </div>
  <div class="flex min-w-0 flex-1 flex-wrap gap-x-3 gap-y-2">{@render children()}</div>
</fieldset>
