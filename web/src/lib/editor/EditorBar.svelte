<script lang="ts">
  import type { Timeline } from '../api/client';
  import NumberField from '../NumberField.svelte';
  import { like, rateName, rates } from './edits';
  import type { Editor } from './editor.svelte';

  let { editor, onact }: { editor: Editor; onact: (key: string) => void } = $props();
  const timeline = $derived(editor.timeline);
  const states = { kept: 'saved', changed: 'unsaved changes', keeping: 'saving…', conflict: 'not saved', offline: 'not saved yet' };
  const acts = [['N', 'New'], ['D', 'Duplicate'], ['S', 'Split'], ['X', 'Delete'], ['B', 'Series']];
  const set = (to: Partial<Timeline>) => editor.change((one) => ({ ...one, ...to }));

  let about: HTMLDetailsElement;

  function leave(event: KeyboardEvent) {
    if (event.key !== 'Escape') return;
    about.open = false;
    about.querySelector('summary')?.focus();
  }

  function useClip(id: string) {
    const clip = editor.clips.find((one) => one.id === id);
    if (clip) editor.change((one) => like(one, clip));
  }
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-4 py-2 text-sm">
  <input class="input input-sm w-52 font-semibold" aria-label="Title" value={timeline.title} onchange={(event) => set({ title: event.currentTarget.value })} />
  <span class="flex items-center gap-1">raster
    <NumberField class="input-sm w-18" label="Width" min={16} max={16384} whole value={timeline.raster.width} onchange={(width) => set({ raster: { ...timeline.raster, width } })} />×<NumberField class="input-sm w-18" label="Height" min={16} max={16384} whole value={timeline.raster.height} onchange={(height) => set({ raster: { ...timeline.raster, height } })} />
  </span>
  <label class="flex items-center gap-1">rate
    <select class="select select-sm w-24" value="{timeline.rate.numerator}/{timeline.rate.denominator}" onchange={(event) => { const [numerator, denominator] = event.currentTarget.value.split('/').map(Number); set({ rate: { numerator, denominator } }); }}>
      {#if !rates.includes(`${timeline.rate.numerator}/${timeline.rate.denominator}`)}<option>{timeline.rate.numerator}/{timeline.rate.denominator}</option>{/if}
      {#each rates as rate (rate)}<option value={rate}>{rateName(rate)}</option>{/each}
    </select>
  </label>
  <label class="flex items-center gap-1">depth
    <select class="select select-sm w-28" value={String(timeline.bitDepth ?? '')} onchange={(event) => set({ bitDepth: event.currentTarget.value ? Number(event.currentTarget.value) : null })}>
      <option value="">as the clips</option><option value="8">8 bit</option><option value="10">10 bit</option>
    </select>
  </label>
  <select class="select select-sm w-36" aria-label="Take raster, rate and depth from a clip" value="" onchange={(event) => { useClip(event.currentTarget.value); event.currentTarget.value = ''; }}>
    <option value="">like a clip…</option>
    {#each editor.clips as clip (clip.id)}<option value={clip.id}>{clip.id}</option>{/each}
  </select>
  <details bind:this={about} class="relative">
    <summary class="btn btn-ghost btn-sm px-2" onkeydown={leave}>Description</summary>
    <label class="absolute left-0 z-30 grid w-96 gap-1 border border-base-300 bg-base-100 p-3 shadow-md">What it is for and where its footage comes from
      <textarea class="textarea textarea-sm h-28 w-full" maxlength="1000" onkeydown={leave} value={timeline.about ?? ''} onchange={(event) => set({ about: event.currentTarget.value.trim() || null })}></textarea>
    </label>
  </details>
  <span class="quiet ml-auto" role="status" data-testid="keeping">{states[editor.state]}</span>
  <span class="flex items-center">
    {#each acts as [key, name] (key)}<button class="btn btn-ghost btn-sm px-2" onclick={() => onact(key.toLowerCase())}>{name} <kbd class="kbd kbd-xs figure">{key}</kbd></button>{/each}
    <button class="btn btn-ghost btn-sm px-2" disabled={!editor.canUndo} onclick={() => editor.undo()}>Undo <kbd class="kbd kbd-xs figure">U</kbd></button>
    <button class="btn btn-ghost btn-sm px-2" disabled={!editor.canRedo} onclick={() => editor.redo()}>Redo <kbd class="kbd kbd-xs figure">Shift U</kbd></button>
  </span>
</div>
