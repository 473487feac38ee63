<script lang="ts">
  import { api, type Clip, type Schemas } from '../api/client';
  import { Reading } from '../api/reading.svelte';
  import { fixed } from '../words';
  import UseInTimeline from './UseInTimeline.svelte';

  let { clip, onclose, ondelete }: { clip: Clip; onclose: () => void; ondelete: (clip: Clip) => void } = $props();
  const reading = new Reading<Schemas['ClipFacts']>(() => {
    const params = { path: { id: clip.id } };
    return (signal) => api.GET('/api/clips/{id}/facts', { params, signal });
  });
  const facts = $derived(reading.value);

  const lines = $derived(
    facts && [
      ['samples per second', `${fixed(facts.samplesPerSecond / 1e6, 1)} million`],
      ['uncompressed', `${fixed(facts.uncompressed.bitsPerSecond! / 1e6, 0)} Mb/s`],
      ['compressed', `${fixed(clip.megabitsPerSecond)} Mb/s, 1 : ${fixed(facts.compressionRatio)}`],
      ['bits per pixel', fixed(facts.bitsPerPixel, 2)],
      ['size of an hour', `${fixed(facts.gigabytesPerHour)} GB`],
      ['level required by its standard', facts.standard ? `${facts.standard.profile}, level ${facts.standard.level ?? '—'}` : '—'],
      ['profile in the file', clip.profile ?? '—'],
      ['decoded per random access', `${fixed(facts.meanRandomAccess)} frames on average, ${facts.worstRandomAccess} at worst`],
      ['memory for a second of frames', `${fixed(facts.memoryPerSecond / 1e6, 0)} MB`],
      ['streams from a drive of 500 MB/s', String(Math.floor(4000 / clip.megabitsPerSecond))]
    ]
  );
</script>

<aside aria-label="Facts of the clip" class="flex h-full flex-col gap-2 overflow-auto border-l border-base-300 px-4 py-3 text-sm" data-testid="facts">
  <header class="flex items-start justify-between gap-2">
    <div>
      <h2 class="font-semibold">{clip.id}</h2>
      {#if clip.title !== clip.id}<p>{clip.title}</p>{/if}
      <p class="quiet">{clip.encoding}, {clip.raster} {clip.rate}</p>
    </div>
    <button class="btn btn-ghost btn-xs" onclick={onclose}>Close</button>
  </header>
  {#if facts?.standard?.refusal}<p class="text-warning">Outside its standard: {facts.standard.refusal}.</p>{/if}
  {#each clip.caveats as caveat, at (at)}<p class="text-warning">Caveat: {caveat}.</p>{/each}
  {#if reading.problem}<p role="alert" class="text-error">{reading.problem}</p>{/if}
  <dl class="grid grid-cols-[10rem_1fr] gap-y-1">
    {#each lines ?? [] as [name, value] (name)}<dt class="quiet">{name}</dt><dd class="figure text-right">{value}</dd>{/each}
  </dl>
  {#key clip.id}<UseInTimeline clipId={clip.id} />{/key}
  {#if clip.usedBy.length}<p class="quiet">Used in {clip.usedBy.join(', ')}.</p>{/if}
  {#if clip.canBeDeleted}
    <p class="flex items-center gap-3">
      <button class="btn btn-sm" onclick={() => ondelete(clip)}>Delete {clip.id}</button>
      {#if clip.usedBy.length}<span class="text-warning">{clip.usedBy.length === 1 ? 'A timeline uses' : `${clip.usedBy.length} timelines use`} it and could no longer be played.</span>{/if}
    </p>
  {/if}
  {#if clip.sha256}<p class="quiet text-xs break-all">SHA-256 <span class="figure">{clip.sha256}</span></p>{/if}
</aside>
