<script lang="ts">
  import { onMount } from 'svelte';
  import { api, orThrow, type MarkKind } from '../api/client';
  import { live } from '../live.svelte';
  import { markKinds } from '../words';

  let { runId, frame, onclose }: { runId: number; frame: number | null; onclose: () => void } = $props();
  let kind = $state<MarkKind>('stutter');
  let text = $state('');
  let problem = $state<string | null>(null);
  let select: HTMLSelectElement;
  onMount(() => select.focus());

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      orThrow(await api.POST('/api/runs/{id}/marks', { params: { path: { id: runId } }, body: { atMs: null, frame, kind, text } }));
      live.marked++;
      onclose();
    } catch (failure) {
      problem = (failure as Error).message;
    }
  }
</script>

<form class="mt-1 flex flex-wrap items-center gap-2 text-sm" onsubmit={keep} data-testid="mark-form">
  <span>Mark{frame === null ? '' : ` frame ${frame}`}:</span>
  <select class="select select-sm w-36" aria-label="What was noticed" bind:this={select} bind:value={kind}>
    {#each Object.entries(markKinds) as [value, word] (value)}<option {value}>{word}</option>{/each}
  </select>
  <input class="input input-sm w-72" aria-label="In words" placeholder="in words, if you like" maxlength="500" bind:value={text} onkeydown={(event) => event.key === 'Escape' && onclose()} />
  <button class="btn btn-primary btn-sm">Pin it</button>
  <button type="button" class="btn btn-ghost btn-sm" onclick={onclose}>Leave it</button>
  {#if problem}<span role="alert" class="text-error">{problem}</span>{/if}
</form>
