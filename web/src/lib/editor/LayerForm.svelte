<script lang="ts">
  import type { Layer } from '../api/client';
  import NumberField from '../NumberField.svelte';
  import type { Editor } from './editor.svelte';
  import EffectList from './EffectList.svelte';

  let { layer, number, editor, onchange, onremove }: { layer: Layer; number: number; editor: Editor; onchange: (layer: Layer) => void; onremove: (() => void) | null } = $props();
  const clips = $derived(editor.clips);
  const known = $derived(clips.some((clip) => clip.id === layer.clipId));
  const speed = $derived(Math.round((layer.retime?.speed ?? 1) * 10000) / 100);

  function setSpeed(percent: number) {
    const method = layer.retime?.method ?? 'repeat';
    onchange({ ...layer, retime: percent === 100 && method === 'repeat' ? null : { speed: percent / 100, method } });
  }
</script>

<fieldset class="grid gap-1 border-l-2 border-base-300 pl-2">
  <legend class="flex w-full items-center text-sm font-semibold">
    layer {number}
    {#if onremove}<button class="btn btn-ghost btn-xs ml-auto" onclick={onremove} aria-label="Remove layer {number}">Remove</button>{/if}
  </legend>
  <select class="select select-sm w-full" aria-label="Clip of layer {number}" value={layer.clipId} onchange={(event) => onchange({ ...layer, clipId: event.currentTarget.value, startFrame: 0 })}>
    {#if !known}<option value={layer.clipId}>{layer.clipId} (unknown clip)</option>{/if}
    {#each clips as clip (clip.id)}<option value={clip.id}>{clip.id} · {clip.encoding} · {clip.raster} {clip.rate}{clip.made ? '' : ' (not created)'}</option>{/each}
  </select>
  <div class="flex flex-wrap gap-x-3 gap-y-1 text-sm">
    <label class="flex items-center gap-1">
      from frame <NumberField class="input-xs w-18" min={0} max={2147483647} whole value={layer.startFrame ?? 0} onchange={(startFrame) => onchange({ ...layer, startFrame })} />
    </label>
    <label class="flex items-center gap-1">
      speed <NumberField class="input-xs w-16" min={0} max={10000} value={speed} onchange={setSpeed} /> %
    </label>
    {#if number > 1}
      <label class="flex items-center gap-1">
        opacity <NumberField class="input-xs w-14" min={0} max={100} value={Math.round((layer.opacity ?? 1) * 10000) / 100} onchange={(to) => onchange({ ...layer, opacity: to === 100 ? null : to / 100 })} /> %
      </label>
    {/if}
    {#if layer.retime}
      <select class="select select-xs w-28" aria-label="Where frames come from" value={layer.retime.method} onchange={(event) => onchange({ ...layer, retime: { speed: layer.retime!.speed, method: event.currentTarget.value as 'repeat' } })}>
        <option value="repeat">repeat</option><option value="blend">blend</option><option value="opticalFlow">optical flow</option>
      </select>
    {/if}
  </div>
  <EffectList effects={layer.effects} {editor} label="to layer {number}" onchange={(effects) => onchange({ ...layer, effects })} />
</fieldset>
