<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { api, orThrow, sendFile, type Schemas } from '#lib/api/client.ts';
  import { imported } from '#lib/editor/imported.svelte.ts';

  let timelines = $state<Schemas['TimelineView'][] | null>(null);
  let problem = $state<string | null>(null);
  let unreadable = $state<Schemas['UnreadableTimeline'][]>([]);
  let deleted = $state<Schemas['TimelineView'] | null>(null);
  let title = $state('');
  /** A list whose rate is being asked for. */
  let asked = $state<{ file: File; rate: Schemas['EdlRateView']; chosen: string } | null>(null);

  onMount(() => void read());

  const trying = (work: () => Promise<void>) => work().catch((failure: Error) => (problem = failure.message));

  function read() {
    return trying(async () => {
      timelines = orThrow(await api.GET('/api/timelines'));
      unreadable = (await api.GET('/api/health')).data?.unreadable ?? [];
    });
  }

  const begin = (event: SubmitEvent) =>
    trying(async () => {
      event.preventDefault();
      const made = orThrow(await api.POST('/api/timelines', { body: { title: title.trim() || 'New timeline' } }));
      await goto(`/timelines/${made.timeline.id}/passages`);
    });

  const take = (input: HTMLInputElement) =>
    trying(async () => {
      const file = input.files?.[0];
      [asked, problem] = [null, null];
      if (!file) return;
      input.value = '';
      if (/\.edl$/i.test(file.name)) {
        const rate = await sendFile<Schemas['EdlRateView']>('/api/timelines/import/rate', file);
        asked = { file, rate, chosen: rate.likely };
      } else if (/\.zip$/i.test(file.name)) {
        await sendFile('/api/packs', file);
        await read();
      } else await importFile(file, null);
    });

  async function importFile(file: File, rate: string | null) {
    const query = new URLSearchParams({ name: file.name, ...(rate ? { rate } : {}) });
    const outcome = await sendFile<Schemas['ImportOutcome']>(`/api/timelines/import?${query}`, file);
    imported.note(outcome);
    await goto(`/timelines/${outcome.stored.timeline.id}/passages`);
  }

  const deleteIt = (id: string) =>
    trying(async () => {
      const path = { id };
      deleted = timelines?.find((one) => one.id === id) ?? null;
      await api.DELETE('/api/timelines/{id}', { params: { path } });
      await read();
    });

  const undoDelete = () =>
    trying(async () => {
      orThrow(await api.POST('/api/deleted/restore', { body: { kind: 'timeline', id: deleted!.id } }));
      deleted = null;
      await read();
    });
</script>

<svelte:head><title>Timelines · Hardy Bench</title></svelte:head>
<div class="p-4">
  <div class="mb-3 flex flex-wrap items-center gap-4">
    <h1 class="text-lg font-semibold">Timelines <span class="quiet text-sm font-normal">each passage is judged on its own</span></h1>
    <form class="flex items-center gap-2 text-sm" onsubmit={begin}>
      <input class="input input-sm w-52" placeholder="Title of a new timeline" aria-label="Title of a new timeline" bind:value={title} />
      <button class="btn btn-primary btn-sm">Add</button>
    </form>
    <label class="flex items-center gap-2 text-sm">import <input class="file-input file-input-sm w-64" type="file" accept=".otio,.edl,.zip" aria-label="An .otio or .edl file, or a pack" onchange={(event) => take(event.currentTarget)} /></label>
  </div>
  {#if asked}
    <form class="mb-2 flex flex-wrap items-center gap-3 bg-base-200 px-3 py-2 text-sm" data-testid="rate-asked" onsubmit={(event) => { event.preventDefault(); void trying(() => importFile(asked!.file, asked!.chosen)); }}>
      <!-- svelte-ignore a11y_autofocus: it is what the person is asked next -->
      <label class="flex items-center gap-2">{asked.file.name} does not say how many frames a second it counts:
        <select class="select select-sm w-28" autofocus bind:value={asked.chosen}>{#each asked.rate.possible as one (one.rate)}<option value={one.rate}>{one.name}</option>{/each}</select>
      </label>
      <span class="quiet">{asked.rate.why}</span>
      <button class="btn btn-primary btn-sm">Import</button>
      <button class="btn btn-sm" type="button" onclick={() => (asked = null)}>Cancel</button>
    </form>
  {/if}
  {#if problem}<p role="alert" class="mb-2 text-error">{problem}</p>{/if}
  {#each unreadable as one, at (at)}<p role="alert" class="mb-2 text-sm text-warning">“{one.id}” is stored but cannot be opened, so it is not listed: {one.why}</p>{/each}
  {#if deleted}<p role="status" class="mb-2 text-sm">{deleted.title} is deleted; its runs stay. <button class="link" onclick={undoDelete}>Restore</button> <a class="link ml-2" href="/deleted">All deleted</a></p>{/if}
  <table class="w-full text-sm" data-testid="timelines">
    <thead class="bg-base-200 text-left">
      <tr>
        {#each ['timeline', 'raster', 'rate', 'passages', 'seconds', ''] as head, i (head)}
          <th scope="col" class="border-b border-base-300 px-3 py-1.5 font-semibold {i >= 2 && i <= 4 ? 'text-right' : ''}">{#if head}{head}{:else}<span class="sr-only">edit or delete</span>{/if}</th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each timelines ?? [] as timeline (timeline.id)}
        <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-3 [&>td]:py-1.5">
          <td><a class="link font-semibold" href="/timelines/{timeline.id}">{timeline.title}</a></td>
          <td>{timeline.raster}</td>
          <td class="figure text-right">{timeline.rate}</td>
          <td class="figure text-right">{timeline.passages.length}</td>
          <td class="figure text-right">{timeline.seconds.toFixed(1)}</td>
          <td class="text-right whitespace-nowrap">
            <a class="link mr-3" href="/timelines/{timeline.id}/passages">Edit</a>
            <button class="link" onclick={() => deleteIt(timeline.id)} aria-label="Delete {timeline.title}">Delete</button>
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
