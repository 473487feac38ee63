<script lang="ts">
  import { onMount } from 'svelte';
  import { api, type EffectKind } from '#lib/api/client.ts';
  import EngineTable from '#lib/machines/EngineTable.svelte';
  import Part from '#lib/machines/Part.svelte';
  import NumberField from '#lib/NumberField.svelte';
  import type { Program } from './programs.svelte.ts';

  let { program = $bindable() }: { program: Program } = $props();
  let effects = $state<EffectKind[]>([]);
  onMount(async () => (effects = (await api.GET('/api/effects')).data ?? []));

  const onOneCore = (id: string, on: boolean) => {
    const others = (program.onOneCore ?? []).filter((one) => one !== id);
    program.onOneCore = on ? [...others, id] : others.length ? others : null;
  };
</script>

<div class="grid max-w-4xl gap-3 text-sm">
  <Part name="Name">
    <input class="input input-sm w-56" aria-label="Name" maxlength="80" bind:value={program.name} />
    <input class="input input-sm w-96" aria-label="Summary" placeholder="in a line" maxlength="200" bind:value={program.summary} />
  </Part>
  <Part name="Decoding">
    <label>media engines decode
      <select class="select select-sm w-56" value={program.onMediaEngine ? (program.onMediaEngine.length ? 'some' : 'none') : 'all'}
        onchange={(event) => (program.onMediaEngine = event.currentTarget.value === 'all' ? null : event.currentTarget.value === 'none' ? [] : [{ codec: 'avc', chroma: 'quarter', maxBitDepth: 8, maxRaster: { width: 3840, height: 2160 } }])}>
        <option value="all">everything they support</option>
        <option value="some">some formats only</option>
        <option value="none">nothing</option>
      </select>
    </label>
    <label>cores per decoder <NumberField class="input-sm w-24" min={1} max={64} whole placeholder="all" value={program.decoderCores ?? null} onempty={() => (program.decoderCores = null)} onchange={(cores) => (program.decoderCores = cores)} /></label>
    <label class="flex items-center gap-2"><input type="checkbox" class="checkbox checkbox-sm" bind:checked={program.decodesSmaller} /> decode wavelets and camera raw at the preview scale</label>
    {#if program.onMediaEngine?.length}<EngineTable rows={program.onMediaEngine} name="what media engines decode" does="sends a media engine" />{/if}
  </Part>
  <Part name="Effects">
    <label>effects on
      <select class="select select-sm w-52" bind:value={program.composesOn}>
        <option value="graphics">the graphics unit</option>
        <option value="processor">the processor</option>
      </select>
    </label>
    {#if program.composesOn === 'graphics'}
      <label>graphics units, maximum <NumberField class="input-sm w-16" min={1} max={8} whole value={program.graphicsUnits} onchange={(units) => (program.graphicsUnits = units)} /></label>
    {/if}
    <label>at the raster of
      <select class="select select-sm w-36" bind:value={program.effectsAt}>
        <option value="timeline">the timeline</option>
        <option value="clip">the clip</option>
      </select>
    </label>
    <label class="flex items-center gap-2"><input type="checkbox" class="checkbox checkbox-sm" bind:checked={program.inColour} /> convert every layer to red, green and blue</label>
    <fieldset class="basis-full">
      <legend class="quiet">effects that run on one core on every machine</legend>
      <div class="flex flex-wrap gap-x-4 gap-y-1">
        {#each effects as kind (kind.id)}
          <label class="flex items-center gap-1.5"><input type="checkbox" class="checkbox checkbox-xs" checked={program.onOneCore?.includes(kind.id) ?? false} onchange={(event) => onOneCore(kind.id, event.currentTarget.checked)} />{kind.label}</label>
        {/each}
      </div>
    </fieldset>
  </Part>
  <Part name="Playing">
    <label>look-ahead <NumberField class="input-sm w-16" min={1} max={120} whole value={program.lookAhead} onchange={(frames) => (program.lookAhead = frames)} /> frames</label>
    <label>when late
      <select class="select select-sm w-52" bind:value={program.whenLate}>
        <option value="keepTime">keep time</option>
        <option value="keepFrames">keep every frame</option>
      </select>
    </label>
    <label>pre-renders at
      <select class="select select-sm w-32" bind:value={program.rendersAt}>
        {#each ['full', 'half', 'quarter', 'eighth'] as scale (scale)}<option value={scale}>{scale} scale</option>{/each}
      </select>
    </label>
  </Part>
  <Part name="Memory">
    <label>memory held <NumberField class="input-sm w-20" min={0} max={1024} value={program.reservesGigabytes} onchange={(gigabytes) => (program.reservesGigabytes = gigabytes)} /> GB besides frames</label>
  </Part>
</div>
