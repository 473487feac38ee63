<script lang="ts">
  import type { Passage, PassageReview } from '../api/client';
  import NumberField from '../NumberField.svelte';
  import { change } from './edits';
  import type { Editor } from './editor.svelte';
  import EffectList from './EffectList.svelte';
  import LayerForm from './LayerForm.svelte';

  let { editor, rows, review }: { editor: Editor; rows: number[]; review: PassageReview | undefined } = $props();
  const passage = $derived(editor.timeline.passages[rows[0]]);
  const fps = $derived(editor.timeline.rate.numerator / editor.timeline.rate.denominator);
  const set = (to: Partial<Passage>) => editor.change((timeline) => change(timeline, rows, (one) => ({ ...one, ...to })));
  const setLayer = (at: number, to: Passage['layers'][number]) =>
    editor.change((timeline) => change(timeline, [rows[0]], (one) => ({ ...one, layers: one.layers.map((layer, i) => (i === at ? to : layer)) })));
</script>

<aside aria-label="Passage" class="flex h-full flex-col gap-3 overflow-auto border-l border-base-300 px-4 py-3" data-testid="passage-form">
  <h2 class="font-semibold">{rows.length > 1 ? `${rows.length} passages` : `Passage ${rows[0] + 1}`}</h2>
  <label class="grid gap-0.5 text-sm">title
    <input id="question" class="input input-sm w-full" value={passage.question} onchange={(event) => set({ question: event.currentTarget.value })} />
  </label>
  <div class="flex gap-4 text-sm">
    <label class="grid gap-0.5">seconds
      <NumberField min={Math.round(1000 / fps) / 1000} max={86400} value={Math.round((passage.frameCount / fps) * 1000) / 1000}
        onchange={(seconds) => set({ frameCount: Math.max(1, Math.round(seconds * fps)) })} />
    </label>
    <label class="grid gap-0.5">transition to the second layer
      <select class="select select-sm w-32" value={passage.transition ?? ''} onchange={(event) => set({ transition: (event.currentTarget.value || null) as Passage['transition'] })}>
        <option value="">a cut</option><option value="dissolve">dissolve</option><option value="wipe">wipe</option><option value="dip">dip</option>
      </select>
    </label>
  </div>
  {#each review?.problems ?? [] as problem, at (at)}<p class="text-sm text-error" role="alert">Cannot be played: {problem}.</p>{/each}
  {#each review?.remarks ?? [] as remark, at (at)}<p class="quiet text-sm">Note: {remark}.</p>{/each}
  {#if rows.length === 1}
    {#each passage.layers as layer, at (at)}
      <LayerForm {layer} number={at + 1} {editor} onchange={(to) => setLayer(at, to)}
        onremove={passage.layers.length > 1 ? () => set({ layers: passage.layers.filter((_, i) => i !== at) }) : null} />
    {/each}
    <button class="btn btn-sm w-fit" onclick={() => set({ layers: [...passage.layers, { ...passage.layers[passage.layers.length - 1], effects: [], opacity: null }] })}>Add a layer</button>
  {/if}
  <div class="grid gap-1">
    <h3 class="text-sm font-semibold">over all layers</h3>
    <EffectList effects={passage.over} {editor} label="over all layers" onchange={(over) => set({ over })} />
  </div>
</aside>
