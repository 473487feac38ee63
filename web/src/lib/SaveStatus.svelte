<script lang="ts" generics="T">
  import type { AutoSave } from './autosave.svelte';

  /** How saving stands, and what can be done where two windows changed the same thing. */
  let { saving, onreload, oncopy }: { saving: AutoSave<T>; onreload: () => void; oncopy: () => void } = $props();
  const words = { saved: 'saved', changed: 'saving…', saving: 'saving…', conflict: 'not saved', refused: 'not saved', offline: 'not saved yet' };
</script>

<span class="quiet text-sm" role="status" data-testid="saving">{words[saving.state]}</span>
{#if saving.problem}
  <p role="alert" class="basis-full text-sm text-error">
    {saving.problem}
    {#if saving.state === 'conflict'}
      <button class="btn btn-xs ml-2" onclick={onreload}>Load the other version</button>
      <button class="btn btn-xs" onclick={oncopy}>Save mine as a copy</button>
    {:else if saving.state === 'offline'}What you changed is still here and is saved as soon as the server answers.{/if}
  </p>
{/if}
