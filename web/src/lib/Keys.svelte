<script lang="ts">
  import { page } from '$app/state';
  import { isTyping, keysOf } from './keys';

  const keys = $derived(keysOf(page.url.pathname));
  let dialog: HTMLDialogElement;
  export const open = () => dialog.showModal();
</script>

<svelte:window onkeydown={(event) => event.key === '?' && !isTyping(event) && open()} />

<dialog bind:this={dialog} class="modal" aria-labelledby="keys-title">
  <div class="modal-box max-w-md">
    <h2 id="keys-title" class="mb-3 text-lg font-semibold">Keys of this page</h2>
    <dl class="grid grid-cols-[8rem_1fr] gap-y-1.5">
      {#each keys as [key, what] (key)}
        <dt><kbd class="kbd kbd-sm figure">{key}</kbd></dt>
        <dd>{what}</dd>
      {/each}
    </dl>
    <form method="dialog" class="modal-action"><button class="btn btn-sm">Close</button></form>
  </div>
  <form method="dialog" class="modal-backdrop"><button tabindex="-1" aria-label="Close">close</button></form>
</dialog>
