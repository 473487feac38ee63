<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import { page } from '$app/state';
  import { duplicate, emptyPassage, insert, like, move, remove, split } from '#lib/editor/edits.ts';
  import { Editor } from '#lib/editor/editor.svelte.ts';
  import EditorBar from '#lib/editor/EditorBar.svelte';
  import PassageForm from '#lib/editor/PassageForm.svelte';
  import RelinkPanel from '#lib/editor/RelinkPanel.svelte';
  import RowList from '#lib/editor/RowList.svelte';
  import ExportLinks from '#lib/editor/ExportLinks.svelte';
  import SeriesDialog from '#lib/editor/SeriesDialog.svelte';
  import { isTyping } from '#lib/keys.ts';
  import { imported } from '#lib/editor/imported.svelte.ts';

  const editor = new Editor();
  const id = $derived(page.params.id!);
  let opened = $state(false);
  let problem = $state<string | null>(null);
  let chosen = $state<number[]>([]);
  /** Where the choice began, and the row that the keys go on from. */
  let [anchor, lead] = $state([0, 0]);
  let rows: RowList | undefined = $state();
  let series: SeriesDialog | undefined = $state();
  const notes = $derived(imported.of(id)?.notes ?? []);
  const substitutes = $derived(imported.of(id)?.substitutes ?? {});
  const shown = $derived(chosen.filter((row) => row < (editor.timeline?.passages.length ?? 0)));

  $effect(() => {
    editor.open(id).then(
      () => {
        opened = true;
        void addAsked();
      },
      (failure) => (problem = (failure as Error).message)
    );
  });
  beforeNavigate(() => void editor.keep());

  /** The address may ask for a passage with a clip, once: a page that is read again adds nothing. */
  async function addAsked() {
    const wanted = page.url.searchParams.get('add');
    if (!wanted) return;
    await goto('?', { replaceState: true, reset: false });
    const clip = editor.clips.find((one) => one.id === wanted);
    if (!clip) return;
    const at = editor.timeline.passages.length;
    editor.change((timeline) => {
      const made = at ? timeline : like(timeline, clip);
      return insert(made, at, [emptyPassage(made, clip.id)]);
    });
    choose([at]);
  }

  /** Chooses rows and brings the one that the keys go on from into sight. */
  function choose(to: number[], from = to[0], on = to[0]) {
    [chosen, anchor, lead] = [[...to].sort((a, b) => a - b), from ?? 0, on ?? 0];
    if (to.length) void rows?.focus(lead);
  }

  /** Chooses all rows from where the choice began to another. */
  const extend = (to: number) => choose(range(Math.min(anchor, to), Math.abs(anchor - to) + 1), anchor, to);

  const range = (from: number, length: number) => Array.from({ length }, (_, i) => from + i);

  function act(key: string) {
    const count = editor.timeline.passages.length;
    const [first, last] = [Math.min(...shown), Math.max(...shown)];
    if (key === 'n') {
      const at = shown.length ? last + 1 : count;
      const clip = shown.length ? editor.timeline.passages[last].layers[0].clipId : (editor.clips[0]?.id ?? 'none');
      editor.change((timeline) => insert(timeline, at, [emptyPassage(timeline, clip)]));
      choose([at]);
    } else if (key === 'b') {
      series?.open();
    } else if (!shown.length) {
      return;
    } else if (key === 'd') {
      editor.change((timeline) => duplicate(timeline, shown));
      choose(range(last + 1, shown.length));
    } else if (key === 's') {
      editor.change((timeline) => split(timeline, first, Object.fromEntries(editor.clips.map((clip) => [clip.id, Number(clip.rate)]))));
      choose([first]);
    } else if (key === 'x') {
      editor.change((timeline) => remove(timeline, shown));
      choose(count - shown.length ? [Math.min(first, count - shown.length - 1)] : []);
    } else if (key === '[' || key === ']') {
      const to = key === '[' ? Math.max(0, first - 1) : Math.min(count - shown.length, first + 1);
      editor.change((timeline) => move(timeline, shown, to));
      choose(range(to, shown.length));
    }
  }

  function key(event: KeyboardEvent) {
    if (!opened || isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    const at = shown.length ? lead : -1;
    const end = editor.timeline.passages.length - 1;
    const steps: Record<string, number> = { ArrowDown: Math.min(end, at + 1), ArrowUp: Math.max(0, at - 1), Home: 0, End: end };
    if (event.key in steps && end >= 0) {
      event.preventDefault();
      const to = steps[event.key];
      if (event.shiftKey && at >= 0) extend(to);
      else choose([to]);
    } else if (event.key === 'u') editor.undo();
    else if (event.key === 'U') editor.redo();
    else if (event.key === 'Enter' && shown.length && !(event.target as HTMLElement).closest('button, a, summary')) {
      event.preventDefault();
      document.querySelector<HTMLInputElement>('#question')?.select();
    } else if ('ndsxb[]'.includes(event.key)) act(event.key);
    else if (event.key === 'Delete') act('x');
    else return;
    event.preventDefault();
  }

  /** Enter or Escape in a field leads back to the rows. */
  function leaveField(event: KeyboardEvent) {
    if ((event.key === 'Escape' || event.key === 'Enter') && event.target instanceof HTMLInputElement && shown.length) {
      event.preventDefault();
      event.target.dispatchEvent(new Event('change'));
      event.target.blur();
      void rows?.focus(shown[0]);
    }
  }
</script>

<svelte:window onkeydown={key} onbeforeunload={() => void editor.keep()} />
<svelte:head><title>{editor.timeline?.title ?? 'Timeline'}, edit · Hardy Bench</title></svelte:head>

{#if problem}
  <p role="alert" class="p-4 text-error">{problem} <a class="link" href="/timelines">All timelines</a></p>
{:else if opened}
  <!-- svelte-ignore a11y_no_static_element_interactions: it only hears Enter and Escape of the fields within -->
  <div class="flex h-full flex-col" onkeydown={leaveField}>
    <h1 class="sr-only">Edit {editor.timeline.title}</h1>
    <EditorBar {editor} onact={act} />
    {#if editor.state === 'conflict'}
      <p role="alert" class="flex items-center gap-3 border-b border-base-300 bg-warning/15 px-4 py-2 text-sm">
        {editor.problem}
        <button class="btn btn-sm" onclick={() => editor.loadSaved()}>Load the other version</button>
        <button class="btn btn-sm" onclick={async () => goto(`/timelines/${await editor.keepCopy()}/passages`)}>Save mine as a copy</button>
      </p>
    {:else if editor.problem}
      <p role="alert" class="border-b border-base-300 px-4 py-1 text-sm text-error">{editor.problem}</p>
    {/if}
    <RelinkPanel {editor} {notes} {substitutes} />
    <div class="flex min-h-0 flex-1">
      <RowList bind:this={rows} {editor} chosen={shown} {lead} onchoose={choose} onextend={extend} />
      {#if shown.length}
        <div class="side">
          <button class="btn btn-sm m-2 md:hidden" onclick={() => (chosen = [])}>Back to the passages</button>
          {#key shown.join()}<PassageForm {editor} rows={shown} review={editor.review[shown[0]]} />{/key}</div>
      {/if}
    </div>
    <div class="quiet border-t border-base-300 px-4 py-1 text-xs">
      Arrows choose, <kbd class="figure">Enter</kbd> edits the title, <kbd class="figure">[</kbd> and <kbd class="figure">]</kbd> move.
      <a class="link ml-3" href="/timelines/{id}">To the sheet</a>
      <ExportLinks {id} />
    </div>
  </div>
  <SeriesDialog bind:this={series} {editor} onbuilt={(built) => { const at = shown.length ? Math.max(...shown) + 1 : editor.timeline.passages.length; editor.change((timeline) => insert(timeline, at, built)); choose(range(at, built.length)); }} />
{:else}
  <p class="quiet p-4">Reading…</p>
{/if}
