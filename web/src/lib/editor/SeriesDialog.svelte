<script lang="ts">
  import { api, orThrow, type Passage, type Schemas } from '../api/client';
  import ChoiceList from '../ChoiceList.svelte';
  import NumberField from '../NumberField.svelte';
  import { freshEffect } from './edits';
  import type { Editor } from './editor.svelte';

  let { editor, onbuilt }: { editor: Editor; onbuilt: (passages: Passage[]) => void } = $props();
  type Kind = Schemas['SeriesKind'];
  const kinds: [Kind, string, string][] = [
    ['layerRamp', 'layer ramp', 'one more layer of the first clip per passage'],
    ['effectRamp', 'effect ramp', 'one more effect per passage, on the first clip'],
    ['ladder', 'ladder', 'every clip bare: encodings, rates or rasters'],
    ['withAndWithout', 'with and without', 'every clip without the effects, then with them'],
    ['streamCount', 'stream count', 'one more of the clips side by side per passage']
  ];
  let dialog: HTMLDialogElement;
  let kind = $state<Kind>('layerRamp');
  let clipIds = $state<string[]>([]);
  let effectIds = $state<string[]>([]);
  let [count, seconds] = $state([4, 5]);
  let problem = $state<string | null>(null);
  const clips = $derived(
    [...Map.groupBy(editor.clips, (clip) => clip.family ?? 'your own')].flatMap(([group, members]) => members.map((clip) => ({ id: clip.id, name: clip.id, group })))
  );
  const effects = $derived(editor.kinds.map((one) => ({ id: one.id, name: one.label })));
  const needsEffects = $derived(kind === 'effectRamp' || kind === 'withAndWithout');

  export const open = () => dialog.showModal();

  async function build(event: SubmitEvent) {
    event.preventDefault();
    const wanted = needsEffects ? effectIds.map((id) => freshEffect(editor.kindsById.get(id)!)) : [];
    try {
      const body = { rate: editor.timeline.rate, series: { kind, clipIds, effects: wanted, count, seconds } };
      onbuilt(orThrow(await api.POST('/api/timelines/series', { body })));
      problem = null;
      dialog.close();
    } catch (failure) {
      problem = (failure as Error).message;
    }
  }
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="series-title">
  <form class="modal-box grid max-h-[95vh] max-w-2xl gap-3 overflow-y-auto" onsubmit={build}>
    <h2 id="series-title" class="text-lg font-semibold">Build a series</h2>
    <label class="grid gap-0.5 text-sm">kind
      <select class="select select-sm w-full" bind:value={kind}>{#each kinds as [id, name, about] (id)}<option value={id}>{name}: {about}</option>{/each}</select>
    </label>
    <div class="grid grid-cols-1 gap-4 sm:grid-cols-2">
      <ChoiceList legend="clips" choices={clips} bind:chosen={clipIds} />
      <ChoiceList legend="effects" choices={effects} bind:chosen={effectIds} disabled={!needsEffects} />
    </div>
    <div class="flex flex-wrap gap-4 text-sm">
      <label class="flex items-center gap-1.5">steps <NumberField class="input-sm w-20" min={1} max={64} whole value={count} disabled={kind !== 'layerRamp' && kind !== 'streamCount'} onchange={(to) => (count = to)} /></label>
      <label class="flex items-center gap-1.5">seconds each <NumberField class="input-sm w-20" min={0.04} max={3600} value={seconds} onchange={(to) => (seconds = to)} /></label>
    </div>
    {#if problem}<p role="alert" class="text-sm text-error">{problem}</p>{/if}
    <div class="modal-action mt-0">
      <button class="btn btn-sm" type="button" onclick={() => dialog.close()}>Cancel</button>
      <button class="btn btn-primary btn-sm" type="submit">Build</button>
    </div>
  </form>
</dialog>
