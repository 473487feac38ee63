<script lang="ts">
  import { isTyping } from './keys';

  const keys = [
    ['Space', 'play, or stop what plays'],
    ['P', 'next smaller preview scale, then full again'],
    ['M', 'mark what you noticed, at this moment'],
    ['Arrows', 'move over the sheet, or along a comb'],
    ['Enter', 'open the chosen cell'],
    ['Esc', 'close what is open'],
    ['?', 'this list']
  ];
  let dialog: HTMLDialogElement;
  export const open = () => dialog.showModal();
</script>

<svelte:window onkeydown={(event) => event.key === '?' && !isTyping(event) && open()} />

<dialog bind:this={dialog} class="modal" aria-labelledby="keys-title">
  <div class="modal-box max-w-md">
    <h2 id="keys-title" class="mb-3 text-lg font-semibold">Keys</h2>
    <dl class="grid grid-cols-[6rem_1fr] gap-y-1.5">
      {#each keys as [key, what] (key)}
        <dt><kbd class="kbd kbd-sm figure">{key}</kbd></dt>
        <dd>{what}</dd>
      {/each}
    </dl>
    <form method="dialog" class="modal-action"><button class="btn btn-sm">Close</button></form>
  </div>
  <form method="dialog" class="modal-backdrop"><button tabindex="-1" aria-label="Close">close</button></form>
</dialog>
