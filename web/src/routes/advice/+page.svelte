<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { page } from '$app/state';
  import { address } from '#lib/address.ts';
  import SaveOnLeave from '#lib/SaveOnLeave.svelte';
  import SaveStatus from '#lib/SaveStatus.svelte';
  import AllAnswers from '#lib/advice/AllAnswers.svelte';
  import AnswerPanel from '#lib/advice/AnswerPanel.svelte';
  import BriefForm from '#lib/advice/BriefForm.svelte';
  import { Briefs } from '#lib/advice/briefs.svelte.ts';
  import { live } from '#lib/live.svelte.ts';
  import PlayedAdvice from '#lib/advice/PlayedAdvice.svelte';

  const briefs = new Briefs();
  const timeline = $derived(page.url.searchParams.get('timeline'));
  let picker = $state<HTMLInputElement>();
  let together = $state(false);
  onMount(() => void briefs.trying(async () => {
    await briefs.read();
    // Whoever was faster than the list has begun a new one already.
    if (!briefs.draft) briefs.choose(page.url.searchParams.get('brief') ?? briefs.list[0]?.brief.id ?? null);
  }));

  // What is written is answered as it stands; a short wait leaves time to finish a number.
  $effect(() => {
    void JSON.stringify(briefs.draft);
    void live.ended;
    const wait = setTimeout(() => {
      briefs.note();
      briefs.ask();
    }, 150);
    return () => clearTimeout(wait);
  });

  $effect(() => {
    void JSON.stringify(briefs.draft);
    untrack(() => briefs.watch());
  });

  // The chosen brief survives a reload.
  $effect(() => {
    const id = briefs.open?.brief.id;
    if (id && untrack(() => page.url.searchParams.get('brief')) !== id) address({ brief: id }, true);
  });

  /** Hands a chosen file on; the same one can be chosen again. */
  function taken(input: HTMLInputElement, importFile: (file: File) => void) {
    const file = input.files?.[0];
    input.value = '';
    if (file) importFile(file);
  }

  function keys(event: KeyboardEvent) {
    // In a field the browser takes back what was typed there.
    if ((event.ctrlKey || event.metaKey) && event.key === 'z' && !(event.target instanceof HTMLInputElement && event.target.type === 'text')) {
      event.preventDefault();
      briefs.undo();
    }
  }
</script>

<svelte:head><title>Advice · Hardy Bench</title></svelte:head>
<svelte:window onkeydown={keys} />
<SaveOnLeave saving={briefs.saving} />
{#if timeline}
  <PlayedAdvice {timeline} />
{:else}
  <div class="p-4 text-sm">
    <div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 print:hidden">
      <h1 class="text-lg font-semibold">Advice</h1>
      <span class="quiet">What to do about a brief: keep the machine you own, work in another way, or buy.</span>
      <span class="ml-auto flex items-center gap-3">
        <button class="link" onclick={() => picker?.click()}>Import a file</button>
        <a class="link" href="/api/briefs/export" download>export all as json</a>
        <a class="link" href="/advice/parts">Parts and prices</a>
      </span>
      <input bind:this={picker} class="hidden" type="file" accept=".json" aria-label="A file of briefs, json" onchange={(event) => taken(event.currentTarget, briefs.importFile)} />
    </div>
    {#if briefs.problem}<p role="alert" class="mb-2 text-error">{briefs.problem}</p>{/if}
    {#if briefs.done}<p role="status" class="mb-2">{briefs.done}</p>{/if}
    {#if briefs.gone}<p role="status" class="mb-2">{briefs.gone.name} is deleted. <button class="link" onclick={briefs.undoDelete}>Restore</button> <a class="link ml-2" href="/deleted">All deleted</a></p>{/if}
    {#each briefs.problems as row, at (at)}<p data-testid="row-problems"><span class="font-semibold">{row.where}{row.name ? `, ${row.name}` : ''}:</span> {row.why}</p>{/each}
    <div class="grid items-start gap-6 lg:grid-cols-[21rem_1fr] print:block">
      <div class="grid gap-3 print:hidden">
        <nav aria-label="Briefs" class="flex flex-wrap items-center gap-2 border-b border-base-300 pb-2" data-testid="briefs">
          {#each briefs.list as { brief } (brief.id)}
            <button class="btn btn-xs {brief.id === briefs.draft?.id ? 'btn-primary' : ''}" aria-pressed={brief.id === briefs.draft?.id} onclick={() => briefs.choose(brief.id)}>{brief.name}</button>
          {/each}
          <button class="btn btn-xs" onclick={() => briefs.begin([])}>New brief</button>
          {#if briefs.list.length > 1}
            <button class="btn btn-xs" aria-pressed={together} onclick={() => (together = !together)}>{together ? 'One at a time' : 'All side by side'}</button>
          {/if}
        </nav>
        {#if briefs.draft}
          <BriefForm bind:brief={briefs.draft} />
          <div class="flex flex-wrap items-center gap-2">
            <button class="btn btn-sm" disabled={!briefs.canUndo} onclick={briefs.undo}>Undo</button>
            {#if briefs.open}<button class="btn btn-sm" onclick={briefs.remove}>Delete</button>{/if}
            <SaveStatus saving={briefs.saving} onreload={briefs.loadSaved} oncopy={briefs.saveCopy} />
          </div>
        {/if}
      </div>
      <div aria-live="polite" aria-busy={briefs.asking}>
        {#if together}<AllAnswers briefs={briefs.list.map((one) => one.brief)} onchoose={(id) => { together = false; briefs.choose(id); }} />{:else}
        {#if briefs.draft}<p class="quiet hidden print:block">{briefs.draft.name}</p>{/if}
        {#if briefs.unanswered && !briefs.asking}<p role="alert" class="text-error">{briefs.unanswered}</p>
        {:else if briefs.answer && briefs.draft}
          {#if briefs.asking}<p role="status" class="quiet">Computing again; the previous answer is below…</p>{/if}
          <div class={briefs.asking ? 'opacity-40' : ''}><AnswerPanel answer={briefs.answer} kept={briefs.open && !briefs.changed ? briefs.draft.id : null} /></div>
        {:else if briefs.asking}<p class="quiet">Computing an answer from every machine and build…</p>{/if}
        {/if}
      </div>
    </div>
  </div>
{/if}
