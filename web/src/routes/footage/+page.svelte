<script lang="ts">
  import { api, orThrow, type Clip, type Footage } from '#lib/api/client.ts';
  import FactsPanel from '#lib/footage/FactsPanel.svelte';
  import { uploads } from '#lib/footage/uploads.svelte.ts';
  import { live } from '#lib/live.svelte.ts';
  import { fixed } from '#lib/words.ts';

  let footage = $state.raw<Footage | null>(null);
  let problem = $state<string | null>(null);
  let picked = $state<string[]>([]);
  let shown = $state<Clip | null>(null);
  const clips = $derived(footage?.clips ?? []);
  /** Somebody's own clips first. */
  const own = 'Your clips';
  const families = $derived([...Map.groupBy(clips, (clip) => clip.family ?? own)].toSorted(([one], [other]) => Number(other === own) - Number(one === own)));
  const wanted = $derived(picked.filter((id) => !clips.find((clip) => clip.id === id)?.made));

  $effect(() => {
    void live.clipsMade;
    void uploads.taken;
    void trying(read);
  });

  /** First what is known, then what is found by looking into new files, which waits while something is measured. */
  async function read() {
    footage = orThrow(await api.GET('/api/clips'));
    footage = orThrow(await api.POST('/api/clips/look'));
    problem = null;
  }

  async function make() {
    await live.make(wanted);
    picked = [];
  }

  function pickFamily(members: Clip[], on: boolean) {
    const ids = members.filter((clip) => !clip.made).map((clip) => clip.id);
    picked = on ? [...new Set([...picked, ...ids])] : picked.filter((id) => !ids.includes(id));
  }

  function show(id: string) {
    shown = clips.find((clip) => clip.id === id) ?? shown;
    document.querySelector(`[data-clip="${CSS.escape(id)}"]`)?.scrollIntoView({ block: 'center' });
  }

  let deleted = $state<Clip | null>(null);

  const trying = (work: () => Promise<void>) => work().catch((failure: Error) => (problem = failure.message));

  const deleteIt = (clip: Clip) =>
    trying(async () => {
      orThrow(await api.DELETE('/api/clips/{id}', { params: { path: { id: clip.id } } }));
      [deleted, shown] = [clip, null];
      await read();
    });

  const undoDelete = () =>
    trying(async () => {
      orThrow(await api.POST('/api/clips/{id}/back', { params: { path: { id: deleted!.id } } }));
      deleted = null;
      await read();
    });

  const standing = (clip: Clip) => (clip.made ? (clip.family ? 'created' : 'imported') : live.making?.running && live.making.clip === clip.id ? 'being created' : 'not created');
</script>

<svelte:head><title>Footage · Hardy Bench</title></svelte:head>
<div class="flex h-full">
  <div class="min-w-0 flex-1 overflow-auto px-4 pb-4">
    <div class="mt-4 mb-3 flex flex-wrap items-center gap-4">
      <h1 class="text-lg font-semibold">Footage</h1>
      <p class="quiet text-sm">One performance, many encodings. Figures are measured if the file exists, else requested.</p>
      <label class="ml-auto flex items-center gap-2 text-sm">import clips
        <input class="file-input file-input-sm w-60" type="file" multiple aria-label="Video files" onchange={(event) => { [...(event.currentTarget.files ?? [])].forEach((file) => uploads.send(file)); event.currentTarget.value = ''; }} />
      </label>
      <button class="btn btn-primary btn-sm" disabled={!wanted.length || live.making?.running} onclick={() => trying(make)}>Create {wanted.length || 'chosen'} {wanted.length === 1 ? 'clip' : 'clips'}</button>
    </div>
    {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
    {#if deleted}<p role="status" class="text-sm" data-testid="clip-deleted">{deleted.id} was deleted. <button class="link" onclick={undoDelete}>Restore</button></p>{/if}
    {#each uploads.all as sending (sending)}
      <p class="flex items-center gap-3 text-sm {sending.problem ? 'text-error' : ''}" role={sending.problem ? 'alert' : 'status'} data-testid="upload">
        <span>{sending.name}</span>
        {#if sending.state === 'sending'}<progress class="progress w-40" value={sending.share} max="1" aria-label="Sent"></progress>{/if}
        <span>{sending.problem ?? sending.state}</span>
        {#if sending.clipId}<button class="link" onclick={() => show(sending.clipId!)}>Show it</button>{/if}
      </p>
    {/each}
    {#each footage?.refused ?? [] as refused, at (at)}<p class="text-sm text-warning">Not taken: {refused.why}</p>{/each}
    {#if footage?.watched}<p class="quiet text-sm">Clips in {footage.watched} are used in place.</p>{/if}
    <table class="w-full text-sm" data-testid="clips">
      <thead class="text-left">
        <tr class="[&>th]:sticky [&>th]:top-0 [&>th]:z-10 [&>th]:bg-base-200">
          {#each ['', 'clip', 'encoding', 'raster', 'rate', 'GOP', 'Mb/s', 'requested', 'measured', 'state'] as head, i (i)}
            <th scope="col" class="border-b border-base-300 px-2 py-1.5 font-semibold {i >= 4 && i <= 6 ? 'text-right' : ''}">{#if head}{head}{:else}<span class="sr-only">to be created</span>{/if}</th>
          {/each}
        </tr>
      </thead>
      {#each families as [family, members] (family)}
        <tbody>
          <tr>
            <td class="border-b border-base-300 px-2 pt-3 pb-1">
              {#if members.some((clip) => !clip.made)}
                <input type="checkbox" class="checkbox checkbox-xs" aria-label="Every clip of {family} that is not created" onchange={(event) => pickFamily(members, event.currentTarget.checked)} />
              {/if}
            </td>
            <th scope="colgroup" colspan="9" class="border-b border-base-300 px-2 pt-3 pb-1 text-left font-semibold">{family}</th>
          </tr>
          {#each members as clip (clip.id)}
            <tr data-clip={clip.id} class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-2 [&>td]:py-1 {shown?.id === clip.id ? 'bg-secondary/15' : ''}">
              <td>{#if !clip.made}<input type="checkbox" class="checkbox checkbox-xs" aria-label="Create {clip.id}" value={clip.id} bind:group={picked} />{/if}</td>
              <td><button data-prints class="link text-left font-semibold" onclick={() => (shown = clip)}>{clip.id}</button> <span class="quiet">{clip.title}</span></td>
              <td class="whitespace-nowrap">{clip.encoding}</td>
              <td>{clip.raster}</td>
              <td class="figure text-right">{clip.rate}</td>
              <td class="figure text-right">{clip.gopLength}</td>
              <td class="figure text-right">{fixed(clip.megabitsPerSecond, clip.megabitsPerSecond < 10 ? 1 : 0)}</td>
              <td class="quiet whitespace-nowrap">{clip.asked ?? ''}</td>
              <td class="quiet">{clip.profile ?? ''}{#if clip.caveats.length}<span class="text-warning"> {clip.caveats.join('; ')}</span>{/if}</td>
              <td class="whitespace-nowrap">{standing(clip)}</td>
            </tr>
          {/each}
        </tbody>
      {/each}
    </table>
  </div>
  {#if shown}<div class="side"><FactsPanel clip={shown} onclose={() => (shown = null)} ondelete={deleteIt} /></div>{/if}
</div>
