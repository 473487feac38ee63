<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import EarlierRuns from '#lib/machines/EarlierRuns.svelte';
  import MachineForm from '#lib/machines/MachineForm.svelte';
  import ThisMachine from '#lib/machines/ThisMachine.svelte';
  import SaveOnLeave from '#lib/SaveOnLeave.svelte';
  import SaveStatus from '#lib/SaveStatus.svelte';
  import { Shelf } from '#lib/machines/shelf.svelte.ts';
  import { money } from '#lib/words.ts';

  const shelf = new Shelf();
  let words = $state('');
  let picker: HTMLInputElement;

  const chosen = $derived(page.url.searchParams.get('id') ?? shelf.list.find((one) => one.kind === 'real')?.id);
  const draft = $derived(chosen === undefined ? undefined : shelf.drafts[chosen]);
  const listed = $derived(shelf.list.filter((one) => words.toLowerCase().split(/\s+/).every((word) => `${one.name} ${one.summary} ${one.graphics ?? ''} ${one.drive ?? ''}`.toLowerCase().includes(word))));

  onMount(() => void shelf.trying(() => shelf.read()));
  // The last message stays: it is often about the machine that is opened now.
  $effect(() => void (chosen && shelf.open(chosen).catch((failure: Error) => (shelf.problem = failure.message))));

  // Every change is saved shortly after; what is pending when another machine or page is opened, at once.
  $effect(() => {
    void JSON.stringify(draft?.machine);
    if (draft && draft.machine.kind !== 'real') untrack(() => shelf.watch(chosen!));
  });

  const show = (id: string) => goto(id ? `?id=${id}` : '?', { reset: false });
  const doing = (work: () => Promise<string | undefined | void>) => () =>
    void shelf.trying(async () => {
      const id = await work();
      if (typeof id === 'string') await show(id);
    });

  const add = doing(() => shelf.add());
  const duplicate = doing(() => shelf.duplicate(chosen!));
  const undo = () => shelf.undo(chosen!);
  const loadSaved = doing(() => shelf.loadSaved(chosen!));
  const saveCopy = doing(() => shelf.saveCopy(chosen!));
  const undoDelete = doing(() => shelf.undoDelete());
  const remove = doing(async () => {
    await shelf.remove(chosen!);
    return '';
  });

  const importFile = (input: HTMLInputElement) => {
    const file = input.files?.[0];
    input.value = '';
    if (file) doing(() => shelf.importFile(file))();
  };
</script>

<svelte:head><title>Machines · Hardy Bench</title></svelte:head>
<SaveOnLeave saving={shelf.saving} />
<div class="flex h-full min-h-0 flex-wrap md:flex-nowrap">
  <section class="flex w-full flex-col border-base-300 md:w-80 md:shrink-0 md:border-r" aria-label="List of machines">
    <div class="grid gap-2 p-3">
      <h1 class="text-lg font-semibold">Machines <span class="quiet text-sm font-normal">{shelf.list.length - 1} stand-ins and this one</span></h1>
      <div class="flex gap-2">
        <input class="input input-sm min-w-0 flex-1" placeholder="filter…" aria-label="Show only machines with" bind:value={words} />
        <button class="btn btn-primary btn-sm" onclick={add}>Add</button>
      </div>
      <p class="text-sm">
        <button class="link mr-3" onclick={() => picker.click()}>Import a file</button>
        <span class="quiet">export all as</span>
        <a class="link mx-1" href="/api/machines/export?format=csv" download>csv</a>
        <a class="link" href="/api/machines/export?format=json" download>json</a>
      </p>
      <input bind:this={picker} class="hidden" type="file" accept=".csv,.json" aria-label="A file of machines, csv or json" onchange={(event) => importFile(event.currentTarget)} />
    </div>
    <ul class="max-h-60 overflow-auto md:max-h-none md:min-h-0 md:flex-1" data-testid="machines">
      {#each listed as machine (machine.id)}
        <li>
          <a class="flex gap-2 border-t border-base-300 px-3 py-1.5 text-sm hover:bg-base-200" class:bg-base-300={machine.id === chosen} href="?id={machine.id}" aria-current={machine.id === chosen ? 'true' : undefined} data-sveltekit-noscroll>
            <span class="min-w-0 flex-1">
              <span class="font-semibold">{machine.name}</span>{#if shelf.isChanged(machine.id)}<span class="text-warning"> · not saved</span>{/if}
              <span class="quiet block truncate">{machine.summary || `${machine.cores} cores, ${machine.memoryGigabytes} GB`}</span>
            </span>
            <span class="figure quiet shrink-0 text-xs leading-6">{machine.kind === 'real' ? 'really plays' : machine.price == null ? '' : money(machine.price, machine.currency)}</span>
          </a>
        </li>
      {:else}
        {#if words}<li class="quiet px-3 py-2 text-sm">No machine matches.</li>{/if}
      {/each}
    </ul>
  </section>

  <section class="min-w-0 flex-1 overflow-auto p-4" aria-label="The machine chosen">
    {#if shelf.problem}<p role="alert" class="mb-2 text-sm text-error">{shelf.problem}</p>{/if}
    {#if shelf.done}<p role="status" class="mb-2 text-sm">{shelf.done}</p>{/if}
    {#if shelf.gone}<p role="status" class="mb-2 text-sm">{shelf.gone.name} is deleted; its runs stay. <button class="link" onclick={undoDelete}>Restore</button> <a class="link ml-2" href="/deleted">All deleted</a></p>{/if}
    {#if shelf.problems.length}
      <details class="mb-3 border border-base-300 px-3 py-2 text-sm" open data-testid="row-problems">
        <summary>What was left out or ignored <button class="link ml-3" onclick={() => (shelf.problems = [])}>Hide</button></summary>
        <ul class="max-h-40 overflow-auto">{#each shelf.problems as row, at (at)}<li><span class="font-semibold">{row.where}{row.name ? `, ${row.name}` : ''}:</span> {row.why}</li>{/each}</ul>
      </details>
    {/if}
    {#if draft && draft.machine.kind === 'real'}
      <ThisMachine machine={draft.machine} />
    {:else if draft}
      <div class="mb-3 flex flex-wrap items-center gap-3 text-sm">
        <h2 class="text-base font-semibold">{draft.machine.name}</h2>
        <span class="quiet">a stand-in: simulated from these figures</span>
        <span class="ml-auto flex items-center gap-3">
          <SaveStatus saving={shelf.saving} onreload={loadSaved} oncopy={saveCopy} />
          <button class="btn btn-sm" disabled={!shelf.canUndo(chosen!)} onclick={undo}>Undo</button>
          <button class="btn btn-sm" onclick={duplicate}>Duplicate</button>
          <button class="btn btn-sm" onclick={remove}>Delete</button>
          <a class="link" href="/api/machines/export?format=json&ids={chosen}" download="{chosen}.json">export</a>
        </span>
      </div>
      {#key chosen}<MachineForm bind:machine={draft.machine} figures={shelf.figures} />{/key}
    {/if}
    {#if draft}<EarlierRuns id={chosen!} version={draft.version} />{/if}
  </section>
</div>
