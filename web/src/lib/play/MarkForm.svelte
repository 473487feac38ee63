<script lang="ts">
  import { onMount } from 'svelte';
  import { api, orThrow, type MarkKind } from '../api/client';
  import { givesFocusBack } from '../focus';
  import { live } from '../live.svelte';
  import { markKinds } from '../words';

  /** @prop pressedAt When the key was pressed while it plays, by the page's clock; null to mark a frame. */
  let { runId, frame, pressedAt = null, onclose }: { runId: number; frame: number | null; pressedAt?: number | null; onclose: (said?: string) => void } = $props();
  let kind = $state<MarkKind>('stutter');
  let text = $state('');
  let problem = $state<string | null>(null);
  let select: HTMLSelectElement;
  onMount(() => select.focus());

  function key(event: KeyboardEvent) {
    if (event.key === 'Escape') {
      event.stopPropagation();
      onclose();
    } else if (event.key === 'Enter' && event.target === select) {
      event.preventDefault();
      select.form!.requestSubmit();
    }
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      const agoMs = pressedAt === null ? null : performance.now() - pressedAt;
      const mark = orThrow(await api.POST('/api/runs/{id}/marks', { params: { path: { id: runId } }, body: { atMs: null, agoMs, frame, kind, text } }));
      live.marked++;
      onclose(`Mark added: ${markKinds[kind]}${mark.frame === null ? ', at the moment it was noticed' : `, at frame ${mark.frame}`}.`);
    } catch (failure) {
      problem = (failure as Error).message;
    }
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions: it only hears Escape and Enter of the fields within -->
<form use:givesFocusBack class="mt-1 flex flex-wrap items-center gap-2 text-sm" onsubmit={keep} onkeydown={key} data-testid="mark-form">
  <span>Mark{frame === null ? '' : ` frame ${frame}`}:</span>
  <select class="select select-sm w-36" aria-label="What you noticed" bind:this={select} bind:value={kind}>
    {#each Object.entries(markKinds) as [value, word] (value)}<option {value}>{word}</option>{/each}
  </select>
  <input class="input input-sm w-72" aria-label="Text" placeholder="optional" maxlength="500" bind:value={text} />
  <button class="btn btn-primary btn-sm">Add mark</button>
  <button type="button" class="btn btn-ghost btn-sm" onclick={() => onclose()}>Cancel</button>
  {#if problem}<span role="alert" class="text-error">{problem}</span>{/if}
</form>
