<script lang="ts" generics="T">
  import { onDestroy } from 'svelte';
  import type { AutoSave } from './autosave.svelte';

  /** Saves what is pending when somebody leaves the page or the window, and at once on Ctrl+S. */
  let { saving }: { saving: AutoSave<T> } = $props();
  onDestroy(() => void saving.now());
</script>

<svelte:window onkeydown={saving.keys} onpagehide={() => void saving.now()} />
