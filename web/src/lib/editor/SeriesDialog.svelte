<script lang="ts">
  import { api, orThrow, type Passage, type Schemas } from '../api/client';
  import { freshEffect } from './edits';
  import type { Editor } from './editor.svelte';

  let { editor, onbuilt }: { editor: Editor; onbuilt: (passages: Passage[]) => void } = $props();
  type Kind = Schemas['SeriesKind'];
  const kinds: [Kind, string, string][] = [
    ['layerRamp', 'layer ramp', 'one more layer of the first clip a passage'],
    ['effectRamp', 'effect ramp', 'one more effect a passage, on the first clip'],
    ['ladder', 'ladder', 'every clip bare: encodings, rates or rasters'],
    ['withAndWithout', 'with and without', 'every clip without the effects, then with them'],
    ['streamCount', 'stream count', 'one more of the clips side by side a passage']
  ];
  let dialog: HTMLDialogElement;
  let kind = $state<Kind>('layerRamp');
  let clipIds = $state<string[]>([]);
  let effectIds = $state<string[]>([]);
  let [count, seconds] = $state([4, 5]);
  let problem = $state<string | null>(null);
  const families = $derived([...Map.groupBy(editor.clips, (clip) => clip.family ?? 'your own')]);
  const needsEffects = $derived(kind === 'effectRamp' || kind === 'withAndWithout');

  export const open = () => dialog.showModal();

  async function build(event: SubmitEvent) {
    event.preventDefault();
    const effects = effectIds.map((id) => freshEffect(editor.kindsById.get(id)!));
    try {
      const body = { rate: editor.timeline.rate, series: { kind, clipIds, effects, count, seconds } };
      onbuilt(orThrow(await api.POST('/api/timelines/series', { body })));
      problem = null;
      dialog.close();
    } catch (failure) {
      problem = (failure as Error).message;
    }
  }
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="series-title">
  <form class="modal-box grid max-w-2xl gap-3" onsubmit={build}>
    <h2 id="series-title" class="text-lg font-semibold">Build a series</h2>
    <label class="grid gap-0.5 text-sm">kind
      <select class="select select-sm w-full" bind:value={kind}>{#each kinds as [id, name, about] (id)}<option value={id}>{name}: {about}</option>{/each}</select>
    </label>
    <div class="grid grid-cols-2 gap-4">
      <label class="grid gap-0.5 text-sm">clips, in order of the list
        <select class="select h-52 w-full" multiple bind:value={clipIds}>
          {#each families as [family, members] (family)}
            <optgroup label={family}>{#each members as clip (clip.id)}<option value={clip.id}>{clip.id}</option>{/each}</optgroup>
          {/each}
        </select>
      </label>
      <label class="grid gap-0.5 text-sm">effects
        <select class="select h-52 w-full" multiple bind:value={effectIds} disabled={!needsEffects}>{#each editor.kinds as one (one.id)}<option value={one.id}>{one.label}</option>{/each}</select>
      </label>
    </div>
    <div class="flex gap-4 text-sm">
      <label class="flex items-center gap-1.5">steps <input class="input input-sm figure w-20" type="number" min="1" max="64" bind:value={count} disabled={kind !== 'layerRamp' && kind !== 'streamCount'} /></label>
      <label class="flex items-center gap-1.5">seconds each <input class="input input-sm figure w-20" type="number" min="0.04" step="any" bind:value={seconds} /></label>
    </div>
    {#if problem}<p role="alert" class="text-sm text-error">{problem}</p>{/if}
    <div class="modal-action mt-0">
      <button class="btn btn-sm" type="button" onclick={() => dialog.close()}>Leave it</button>
      <button class="btn btn-primary btn-sm" type="submit">Write the passages</button>
    </div>
  </form>
</dialog>
