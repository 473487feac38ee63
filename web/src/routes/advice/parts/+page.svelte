<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import SaveOnLeave from '#lib/SaveOnLeave.svelte';
  import SaveStatus from '#lib/SaveStatus.svelte';
  import PartForm from '#lib/advice/PartForm.svelte';
  import { Parts } from '#lib/advice/parts.svelte.ts';
  import { partKinds, plainOf } from '#lib/advice/partWords.ts';

  const parts = new Parts();
  let picker = $state<HTMLInputElement>();
  let kind = $state('processor');
  const shown = $derived(parts.list.filter((part) => part.kind === kind));
  onMount(() => void parts.trying(() => parts.read()));

  $effect(() => {
    void JSON.stringify(parts.draft);
    untrack(() => parts.watch());
  });

  function importFile(input: HTMLInputElement) {
    const file = input.files?.[0];
    input.value = '';
    if (file) parts.importFile(file);
  }

  function look(at: string) {
    kind = at;
    parts.choose(null);
  }
</script>

<svelte:head><title>Parts · Hardy Bench</title></svelte:head>
<SaveOnLeave saving={parts.saving} />
<div class="p-4 text-sm">
  <div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
    <h1 class="text-lg font-semibold">Parts</h1>
    <span class="quiet">The parts from which <a class="link" href="/advice">advice</a> builds machines, with prices.</span>
    <span class="ml-auto flex items-center gap-3">
      <button class="link" onclick={() => picker?.click()}>Import a file</button>
      <span>export all as <a class="link" href="/api/parts/export" download>json</a>, <a class="link" href="/api/parts/export?format=csv" download>csv</a></span>
      <button class="btn btn-primary btn-sm" onclick={() => parts.add(plainOf[kind])}>Add</button>
    </span>
    <input bind:this={picker} class="hidden" type="file" accept=".json,.csv" aria-label="A file of parts or prices, json or csv" onchange={(event) => importFile(event.currentTarget)} />
  </div>
  {#if parts.problem}<p role="alert" class="mb-2 text-error">{parts.problem}</p>{/if}
  {#if parts.done}<p role="status" class="mb-2">{parts.done}</p>{/if}
  {#if parts.gone}<p role="status" class="mb-2">{parts.gone.name} is deleted. <button class="link" onclick={parts.undoDelete}>Restore</button> <a class="link ml-2" href="/deleted">All deleted</a></p>{/if}
  {#each parts.problems as row, at (at)}<p data-testid="row-problems"><span class="font-semibold">{row.where}{row.name ? `, ${row.name}` : ''}:</span> {row.why}</p>{/each}
  <nav aria-label="Kinds of parts" class="mb-2 flex flex-wrap gap-2">
    {#each Object.entries(partKinds) as [of, words] (of)}
      <button class="btn btn-xs {of === kind ? 'btn-primary' : ''}" aria-pressed={of === kind} onclick={() => look(of)}>{words} <span class="figure">{parts.list.filter((part) => part.kind === of).length}</span></button>
    {/each}
  </nav>
  <table class="mb-4 w-full" data-testid="parts">
    <thead class="bg-base-200 text-left">
      <tr class="[&>th]:border-b [&>th]:border-base-300 [&>th]:px-2.5 [&>th]:py-1.5 [&>th]:font-semibold"><th scope="col" class="w-72">part</th><th scope="col">what it is</th><th scope="col" class="w-28 text-right">price, EUR</th><th scope="col" class="w-28">priced on</th></tr>
    </thead>
    <tbody class="[&>tr>td]:border-b [&>tr>td]:border-base-300 [&>tr>td]:px-2.5 [&>tr>td]:py-1 [&>tr>td]:align-top">
      {#each shown as part (part.id)}
        <tr class={parts.draft?.id === part.id ? 'bg-secondary/10' : ''}>
          <td><button data-prints class="link text-left" aria-pressed={parts.draft?.id === part.id} onclick={() => parts.choose(part.id)}>{part.name}</button></td>
          <td>{part.words}</td>
          <td class="figure text-right">{part.price}</td>
          <td class="figure">{part.pricedOn ?? '—'}</td>
        </tr>
      {:else}<tr><td colspan="4" class="quiet">There are no parts of this kind.</td></tr>{/each}
    </tbody>
  </table>
  {#if parts.draft}
    <section aria-label="The part chosen">
      <div class="mb-3 flex flex-wrap items-center gap-3">
        <h2 class="text-base font-semibold">{parts.open?.name}</h2>
        <span class="ml-auto flex items-center gap-3">
          <SaveStatus saving={parts.saving} onreload={parts.loadSaved} oncopy={parts.saveCopy} />
          <button class="btn btn-sm" disabled={!parts.canUndo} onclick={parts.undo}>Undo</button>
          <button class="btn btn-sm" onclick={() => parts.add($state.snapshot(parts.draft!))}>Duplicate</button>
          <button class="btn btn-sm" onclick={parts.remove}>Delete</button>
        </span>
      </div>
      <PartForm bind:cells={parts.draft} columns={parts.columns[parts.draft.kind] ?? []} />
    </section>
  {/if}
</div>
