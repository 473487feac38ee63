<script lang="ts">
  import { onMount } from 'svelte';
  import { api, type Schemas } from '#lib/api/client.ts';
  import NumberField from '#lib/NumberField.svelte';

  /** The work of a week by format and treatment, of which a timeline is written. */
  let { onwritten }: { onwritten: (timeline: Schemas['Timeline'], hours: number) => void } = $props();
  type Row = Schemas['WeekRow'];
  const treatments: Record<Row['treatment'], string> = {
    cut: 'cut', graded: 'graded', titled: 'graded, with a title', cleaned: 'graded, noise reduction'
  };
  let clips = $state<Schemas['ClipView'][]>([]);
  let rows = $state<Row[]>([]);
  let title = $state('A week of work');
  let problem = $state<string | null>(null);
  onMount(async () => {
    clips = (await api.GET('/api/clips')).data?.clips ?? [];
    more();
  });

  const more = () => clips.length && rows.push({ clipId: rows.at(-1)?.clipId ?? clips[0].id, treatment: 'cut', streams: 1, hours: 5 });

  async function write() {
    problem = null;
    const { data, error } = await api.POST('/api/timelines/week', { body: { title, rows: $state.snapshot(rows) } });
    if (data) onwritten(data.timeline, rows.reduce((sum, row) => sum + row.hours, 0));
    else problem = (error as { detail?: string } | undefined)?.detail ?? 'It could not be created.';
  }
</script>

<div class="grid gap-2 border-l-2 border-base-300 pl-3" data-testid="week">
  <label class="flex items-center gap-2">title <input class="input input-sm w-full" maxlength="80" bind:value={title} /></label>
  {#each rows as row, at (row)}
    <div class="grid gap-1 border-b border-base-300 pb-2" role="group" aria-label="Kind of work {at + 1}">
      <select class="select select-sm w-full" aria-label="Footage" bind:value={row.clipId}>
        {#each clips as clip (clip.id)}<option value={clip.id}>{clip.id} · {clip.encoding} · {clip.raster} {clip.rate}</option>{/each}
      </select>
      <select class="select select-sm w-full" aria-label="Treatment" bind:value={row.treatment}>
        {#each Object.entries(treatments) as [value, words] (value)}<option {value}>{words}</option>{/each}
      </select>
      <div class="flex items-center gap-2">
        <span><NumberField class="input-sm w-12" min={1} max={16} whole label="Streams side by side" value={row.streams} onchange={(streams) => (row.streams = streams)} /> streams</span>
        <span><NumberField class="input-sm w-14" min={0.1} max={168} label="Hours a week" value={row.hours} onchange={(hours) => (row.hours = hours)} /> h a week</span>
        <button type="button" class="link ml-auto" disabled={rows.length < 2} onclick={() => rows.splice(at, 1)}>remove</button>
      </div>
    </div>
  {/each}
  {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
  <div class="flex gap-2">
    <button type="button" class="btn btn-xs" onclick={more}>Add a kind of work</button>
    <button type="button" class="btn btn-xs btn-primary" disabled={!rows.length || !title.trim()} onclick={write}>Create a timeline from it</button>
  </div>
</div>
