<script lang="ts">
  import { api, type Mark } from '../api/client';
  import { isTyping } from '../keys';
  import { live } from '../live.svelte';
  import MarkForm from '../play/MarkForm.svelte';
  import { fixed, markKinds } from '../words';

  let { runId, marks, frame }: { runId: number; marks: Mark[]; frame: number | null } = $props();
  let pinned = $state<number | null>(null);
  let said = $state('');

  let gone = $state<Mark | null>(null);

  /** M marks what plays; while nothing does, the frame that is looked at. */
  function key(event: KeyboardEvent) {
    if (event.key !== 'm' || isTyping(event) || event.ctrlKey || live.play?.running || frame === null) return;
    event.preventDefault();
    [pinned, said] = [frame, ''];
  }

  async function remove(mark: Mark) {
    await api.DELETE('/api/runs/{id}/marks/{mark}', { params: { path: { id: runId, mark: mark.id } } });
    [gone, said] = [mark, ''];
    live.marked++;
  }

  async function undoDelete() {
    const { atMs, frame, kind, text } = gone!;
    await api.POST('/api/runs/{id}/marks', { params: { path: { id: runId } }, body: { atMs: frame === null ? atMs : null, agoMs: null, frame, kind, text } });
    gone = null;
    live.marked++;
  }
</script>

<svelte:window onkeydown={key} />

<section class="text-sm">
  <h3 class="flex items-baseline justify-between font-semibold">
    Marks
    {#if frame !== null}<button class="btn btn-xs" onclick={() => ([pinned, said] = [frame, ''])}>Mark frame <span class="figure">{frame}</span> <kbd class="kbd kbd-xs figure" aria-hidden="true">M</kbd></button>{/if}
  </h3>
  {#if pinned !== null}<MarkForm {runId} frame={pinned} onclose={(words) => ([pinned, said] = [null, words ?? ''])} />{/if}
  {#if said}<p role="status" class="quiet" data-testid="pinned">{said}</p>{/if}
  {#if gone}<p role="status" class="quiet">The mark “{markKinds[gone.kind]}{gone.text ? ` ${gone.text}` : ''}” was deleted. <button class="link" onclick={undoDelete}>Restore</button></p>{/if}
  {#if marks.length}
    <ul data-testid="marks">
      {#each marks as mark (mark.id)}
        <li class="flex items-baseline gap-2 border-b border-base-200 py-0.5">
          <span class="figure quiet w-16 text-right">{mark.frame ?? `${fixed(mark.atMs / 1000)} s`}</span>
          <b class="font-semibold">{markKinds[mark.kind]}</b>
          <span class="flex-1">{mark.text}</span>
          <button class="link text-xs" aria-label="Delete the mark {markKinds[mark.kind]} {mark.text}" onclick={() => remove(mark)}>delete</button>
        </li>
      {/each}
    </ul>
  {:else}
    <p class="quiet">No marks. Note here what no counter records, such as a loud fan or a green flash.</p>
  {/if}
</section>
