<script lang="ts">
  import { api, orThrow, type RunLine } from '#lib/api/client.ts';
  import { live } from '#lib/live.svelte.ts';

  const endings: Record<string, string> = { playing: 'playing', finished: 'finished', stopped: 'stopped early', cutShort: 'cut short' };
  let runs = $state<RunLine[] | null>(null);
  let problem = $state<string | null>(null);

  $effect(() => {
    void live.ended;
    api.GET('/api/runs').then(
      (answer) => ([runs, problem] = [orThrow(answer), null]),
      () => (problem = 'The server does not answer.')
    );
  });

  const count = (run: RunLine, verdict: string) => run.verdicts.filter((one) => one === verdict).length;
</script>

<svelte:head><title>Runs · Hardy Bench</title></svelte:head>
<div class="p-4">
  <h1 class="mb-3 text-lg font-semibold">Runs</h1>
  {#if problem}
    <p role="alert" class="text-error">{problem}</p>
  {:else if runs?.length === 0}
    <p>Nothing has been played yet. <a class="link" href="/timelines">Open a timeline and press Space.</a></p>
  {:else if runs}
    <table class="w-full text-sm" data-testid="runs">
      <thead class="bg-base-200 text-left">
        <tr>
          {#each ['run', 'started', 'timeline', 'machine', 'scale', 'if late', 'ending', 'holds', 'wavers', 'breaks', 'shown', 'slots'] as head, i (head)}
            <th scope="col" class="border-b border-base-300 px-3 py-1.5 font-semibold {i === 0 || i > 6 ? 'text-right' : ''}">{head}</th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each runs as run (run.id)}
          <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-3 [&>td]:py-1">
            <td class="figure text-right"><a class="link" href="/runs/{run.id}">{run.id}</a></td>
            <td class="figure">{new Date(run.startedAt).toLocaleString('en-GB')}</td>
            <td>{run.timelineId}</td>
            <td>{run.machineId}</td>
            <td>{run.scale}</td>
            <td>{run.policy === 'keepTime' ? 'keeps time' : 'keeps frames'}</td>
            <td class={run.ending === 'cutShort' ? 'text-warning' : ''}>{endings[run.ending ?? "playing"]}</td>
            {#each ['holds', 'wavers', 'breaks'] as verdict (verdict)}<td class="figure text-right">{count(run, verdict)}</td>{/each}
            <td class="figure text-right">{run.shown}</td>
            <td class="figure text-right">{run.slots}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</div>
