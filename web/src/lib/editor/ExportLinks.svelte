<script lang="ts">
  let { id }: { id: string } = $props();
  let doing = $state<string | null>(null);
  let problem = $state<string | null>(null);
  let notCarried = $state<string[]>([]);

  /** Reads a file whole, saying how far it is, then hands it to the browser to keep. */
  async function take(address: string, name: string, making: string) {
    [doing, problem, notCarried] = [making, null, []];
    try {
      const answer = await fetch(address);
      if (!answer.ok) throw new Error((await answer.json().catch(() => null))?.detail ?? `The server answered ${answer.status}.`);
      notCarried = (answer.headers.get('X-Not-Carried') ?? '').split(' ').filter(Boolean).map(decodeURIComponent);
      const [pieces, whole] = [[] as Uint8Array<ArrayBuffer>[], Number(answer.headers.get('Content-Length'))];
      let came = 0;
      for (const reader = answer.body!.getReader(); ; ) {
        const { done, value } = await reader.read();
        if (done) break;
        pieces.push(value as Uint8Array<ArrayBuffer>);
        came += value.length;
        doing = `${name}: ${megabytes(came)}${whole ? ` of ${megabytes(whole)}` : ''} MB`;
      }
      const link = Object.assign(document.createElement('a'), { href: URL.createObjectURL(new Blob(pieces)), download: name });
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
    } catch (failure) {
      problem = (failure as Error).message;
    }
    doing = null;
  }

  const megabytes = (bytes: number) => (bytes / 1e6).toFixed(1);
</script>

<span class="ml-3">Export as
  {#each ['otio', 'edl', 'json'] as format (format)}
    <button class="link mx-1" disabled={!!doing} onclick={() => take(`/api/timelines/${id}/export?format=${format}`, `${id}.${format}`, `Writing ${format}…`)}>{format}</button>
  {/each}
  <button class="link mx-1" disabled={!!doing} onclick={() => take(`/api/packs/${id}.zip`, `${id}.zip`, 'Putting the clips together; this waits while something plays on this machine…')}>pack with its clips</button>
</span>
{#if doing}<span role="status" class="ml-2" data-testid="taking">{doing}</span>{/if}
{#if problem}<span role="alert" class="ml-2 text-error">{problem}</span>{/if}
{#if notCarried.length}
  <details class="mt-1" open data-testid="not-carried">
    <summary>{notCarried.length === 1 ? 'One thing was' : `${notCarried.length} things were`} not included in the file</summary>
    <ul class="max-h-24 overflow-auto">{#each notCarried as note, at (at)}<li>{note}</li>{/each}</ul>
  </details>
{/if}
