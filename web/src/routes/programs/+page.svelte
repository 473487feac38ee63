<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import SaveOnLeave from '#lib/SaveOnLeave.svelte';
  import SaveStatus from '#lib/SaveStatus.svelte';
  import ProgramForm from '#lib/programs/ProgramForm.svelte';
  import { plain, Programs } from '#lib/programs/programs.svelte.ts';

  const programs = new Programs();
  let picker: HTMLInputElement;
  onMount(() => void programs.trying(async () => {
    await programs.read();
    // Whoever was faster than the list has added one already.
    if (!programs.draft) programs.choose(programs.list[0]?.program.id ?? null);
  }));

  $effect(() => {
    void JSON.stringify(programs.draft);
    untrack(() => programs.watch());
  });

  function importFile(input: HTMLInputElement) {
    const file = input.files?.[0];
    input.value = '';
    if (file) programs.importFile(file);
  }
</script>

<svelte:head><title>Editing programs · Hardy Bench</title></svelte:head>
<SaveOnLeave saving={programs.saving} />
<div class="p-4 text-sm">
  <div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
    <h1 class="text-lg font-semibold">Editing programs</h1>
    <span class="quiet">How a program uses a machine. Stand-ins can play as any of them: under <em>Conditions</em>, beside a timeline’s Play.</span>
    <span class="ml-auto flex items-center gap-3">
      <button class="link" onclick={() => picker.click()}>Import a file</button>
      <a class="link" href="/api/programs/export" download>export all as json</a>
      <button class="btn btn-primary btn-sm" onclick={() => programs.add(plain)}>Add</button>
    </span>
    <input bind:this={picker} class="hidden" type="file" accept=".json" aria-label="A file of editing programs, json" onchange={(event) => importFile(event.currentTarget)} />
  </div>
  {#if programs.problem}<p role="alert" class="mb-2 text-error">{programs.problem}</p>{/if}
  {#if programs.done}<p role="status" class="mb-2">{programs.done}</p>{/if}
  {#if programs.gone}<p role="status" class="mb-2">{programs.gone.name} is deleted; its runs stay. <button class="link" onclick={programs.undoDelete}>Restore</button> <a class="link ml-2" href="/deleted">All deleted</a></p>{/if}
  {#if programs.problems.length}
    <ul class="mb-3 max-h-40 overflow-auto border border-base-300 px-3 py-2" data-testid="row-problems">
      {#each programs.problems as row, at (at)}<li><span class="font-semibold">{row.where}{row.name ? `, ${row.name}` : ''}:</span> {row.why}</li>{/each}
    </ul>
  {/if}
  <table class="mb-4 w-full" data-testid="programs">
    <thead class="bg-base-200 text-left">
      <tr class="[&>th]:border-b [&>th]:border-base-300 [&>th]:px-2.5 [&>th]:py-1.5 [&>th]:font-semibold"><th scope="col" class="w-44">program</th><th scope="col" class="w-72">summary</th><th scope="col">how it uses a machine</th></tr>
    </thead>
    <tbody class="[&>tr>td]:border-b [&>tr>td]:border-base-300 [&>tr>td]:px-2.5 [&>tr>td]:py-1.5 [&>tr>td]:align-top">
      <tr><td class="font-semibold">Hardy Bench player</td><td>What really plays on this machine</td><td class="quiet">stand-ins play as it does where no program is chosen; it cannot be changed</td></tr>
      {#each programs.list as { program, words } (program.id)}
        <tr class={programs.draft?.id === program.id ? 'bg-secondary/10' : ''}>
          <td><button data-prints class="link font-semibold" aria-pressed={programs.draft?.id === program.id} onclick={() => programs.choose(program.id)}>{program.name}</button></td>
          <td>{program.summary}</td>
          <td>{words.join('; ')}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if programs.draft}
    {@const name = programs.draft.name}
    <section aria-label="The program chosen">
      <div class="mb-3 flex flex-wrap items-center gap-3">
        <h2 class="text-base font-semibold">{name}</h2>
        <span class="ml-auto flex items-center gap-3">
          <SaveStatus saving={programs.saving} onreload={programs.loadSaved} oncopy={programs.saveCopy} />
          <button class="btn btn-sm" disabled={!programs.canUndo} onclick={programs.undo}>Undo</button>
          <button class="btn btn-sm" onclick={() => programs.add($state.snapshot(programs.draft!))}>Duplicate</button>
          <button class="btn btn-sm" onclick={programs.remove}>Delete</button>
        </span>
      </div>
      {#key programs.draft.id}<ProgramForm bind:program={programs.draft} />{/key}
    </section>
  {/if}
</div>
