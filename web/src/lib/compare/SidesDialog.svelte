<script lang="ts">
  import type { Snippet } from 'svelte';
  import { comparable } from './sides';

  /** A button, and the dialog that it opens, in which the sides of a comparison are chosen; the first chosen is the baseline.
   * @prop what What is chosen, a plural.
   * @prop hint What else to know of them.
   * @prop onopen Reads what there is to choose from. */
  let { what, hint = '', chosen, width, onopen, onchoose, children }: { what: string; hint?: string; chosen: string[]; width: string; onopen: () => Promise<unknown>; onchoose: () => void; children: Snippet } = $props();

  let dialog: HTMLDialogElement;
  const title = $derived(`${what[0].toUpperCase()}${what.slice(1)} to compare`);

  async function open() {
    await onopen();
    dialog.showModal();
  }

  function choose(event: SubmitEvent) {
    event.preventDefault();
    dialog.close();
    onchoose();
  }
</script>

<button class="btn btn-sm" onclick={open}>Choose {what}</button>
<dialog bind:this={dialog} class="modal" aria-label={title}>
  <form class="modal-box grid gap-3 {width}" onsubmit={choose}>
    <h2 class="font-semibold">{title}</h2>
    <p class="quiet text-sm">{hint} The first one chosen is the baseline. Two to six; four fit without scrolling.</p>
    {@render children()}
    <p class="flex justify-end gap-2">
      <button class="btn btn-sm" type="button" onclick={() => dialog.close()}>Cancel</button>
      <button class="btn btn-primary btn-sm" disabled={!comparable(chosen.length)}>Compare</button>
    </p>
  </form>
</dialog>
