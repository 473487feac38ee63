<script lang="ts">
  import { missingClips, relink } from './edits';
  import type { Editor } from './editor.svelte';

  let { editor, notes, substitutes }: { editor: Editor; notes: string[]; substitutes: Record<string, string[]> } = $props();
  const missing = $derived(missingClips(editor.timeline, new Set(editor.clips.map((clip) => clip.id))));

  function play(key: string, id: string) {
    const clip = editor.clips.find((one) => one.id === id);
    if (clip) editor.change((timeline) => relink(timeline, key, { id, rate: Number(clip.rate) }));
  }

  const others = (key: string) => editor.clips.filter((clip) => !substitutes[key]?.includes(clip.id));
</script>

{#if missing.length || notes.length}
  <section aria-label="What the import left open" class="border-b border-base-300 bg-warning/10 px-4 py-2 text-sm" data-testid="relink">
    {#each notes as note, at (at)}<p class="quiet">{note}</p>{/each}
    {#each missing as key (key)}
      <label class="mt-1 flex items-center gap-2">
        <span>No clip is called <b class="font-semibold">{key}</b>. Use instead</span>
        <select class="select select-sm w-72" value="" onchange={(event) => play(key, event.currentTarget.value)}>
          <option value="">choose a clip…</option>
          {#if substitutes[key]?.length}
            <optgroup label="of the same format">{#each substitutes[key] as id (id)}<option value={id}>{id}</option>{/each}</optgroup>
          {/if}
          <optgroup label="others">{#each others(key) as clip (clip.id)}<option value={clip.id}>{clip.id} · {clip.encoding} · {clip.raster} {clip.rate}</option>{/each}</optgroup>
        </select>
      </label>
    {/each}
  </section>
{/if}
