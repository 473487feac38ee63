<script lang="ts">
  import { api, orThrow, type Clip } from '#lib/api/client.ts';
  import { live } from '#lib/live.svelte.ts';
  import { fixed } from '#lib/words.ts';

  let clips = $state<Clip[]>([]);
  let problem = $state<string | null>(null);
  const missing = $derived(clips.filter((clip) => !clip.made).length);

  $effect(() => {
    void live.making?.done;
    void live.making?.running;
    api.GET('/api/clips').then(
      (answer) => ([clips, problem] = [orThrow(answer), null]),
      () => (problem = 'The server does not answer.')
    );
  });

  async function make() {
    live.making = orThrow(await api.POST('/api/clips/making'));
  }
</script>

<svelte:head><title>Footage · Hardy Bench</title></svelte:head>
<div class="p-4">
  <div class="mb-3 flex items-baseline gap-4">
    <h1 class="text-lg font-semibold">Footage</h1>
    <p class="quiet text-sm">One performance, many encodings. Figures are measured of the file where it is made, else as asked for.</p>
    {#if missing && !live.making?.running}
      <button class="btn btn-primary btn-sm ml-auto" onclick={make}>Make {missing} missing {missing === 1 ? 'clip' : 'clips'}</button>
    {/if}
  </div>
  {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
  <table class="w-full text-sm" data-testid="clips">
    <thead class="bg-base-200 text-left">
      <tr>
        {#each ['clip', 'encoding', 'raster', 'rate', 'GOP', 'Mb/s', 'frames', 'seconds', 'state', 'SHA-256'] as head, i (head)}
          <th scope="col" class="border-b border-base-300 px-3 py-1.5 font-semibold {i >= 3 && i <= 7 ? 'text-right' : ''}">{head}</th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each clips as clip (clip.id)}
        <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-3 [&>td]:py-1.5">
          <td><b class="font-semibold">{clip.id}</b><span class="quiet block">{clip.title}</span></td>
          <td>{clip.encoding}</td>
          <td>{clip.raster}</td>
          <td class="figure text-right">{clip.rate}</td>
          <td class="figure text-right">{clip.gopLength}</td>
          <td class="figure text-right">{fixed(clip.megabitsPerSecond, 0)}</td>
          <td class="figure text-right">{clip.frameCount}</td>
          <td class="figure text-right">{fixed(clip.seconds)}</td>
          <td>{clip.made ? 'made' : live.making?.clip === clip.id ? 'in work' : 'not made yet'}</td>
          <td class="figure quiet" title={clip.sha256 ?? ''}>{clip.sha256?.slice(0, 12) ?? ''}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
