<script lang="ts">
  import { onMount } from 'svelte';
  import { api, orThrow, type Schemas } from '#lib/api/client.ts';
  import { Notices } from '#lib/notices.svelte.ts';
  import { moment } from '#lib/words.ts';

  type Deleted = Schemas['DeletedView'];
  const notices = new Notices();
  let list = $state<Deleted[] | null>(null);
  let words = $state('');
  const shown = $derived((list ?? []).filter((one) => words.toLowerCase().split(/\s+/).every((word) => `${one.kind} ${one.name}`.toLowerCase().includes(word))));

  const read = async () => (list = orThrow(await api.GET('/api/deleted')));
  onMount(() => void notices.trying(read));

  const restore = (one: Deleted) =>
    notices.trying(async () => {
      orThrow(await api.POST('/api/deleted/restore', { body: { kind: one.kind, id: one.id } }));
      await read();
      notices.done = `${one.name} is restored.`;
    });
</script>

<svelte:head><title>Deleted · Hardy Bench</title></svelte:head>
<div class="p-4 text-sm">
  <div class="mb-3 flex flex-wrap items-center gap-4">
    <h1 class="text-lg font-semibold">Deleted</h1>
    <span class="quiet">Clips, runs, timelines, machines, briefs, parts and editing programs that can still be restored.</span>
    {#if list?.length}<input class="input input-sm w-52" placeholder="filter…" aria-label="Show only deleted things with" bind:value={words} />{/if}
  </div>
  {#if notices.problem}<p role="alert" class="mb-2 text-error">{notices.problem}</p>{/if}
  {#if notices.done}<p role="status" class="mb-2">{notices.done}</p>{/if}
  {#if list && list.length === 0}<p class="quiet">Nothing is deleted. What you delete stays here for 31 days.</p>
  {:else if list}
    <table class="w-full max-w-4xl" data-testid="deleted">
      <thead class="bg-base-200 text-left">
        <tr class="[&>th]:border-b [&>th]:border-base-300 [&>th]:px-2.5 [&>th]:py-1.5 [&>th]:font-semibold"><th scope="col">name</th><th scope="col" class="w-36">kind</th><th scope="col" class="w-56">deleted</th><th scope="col" class="w-56">removed for good</th><th scope="col" class="w-24"><span class="sr-only">restore</span></th></tr>
      </thead>
      <tbody class="[&>tr>td]:border-b [&>tr>td]:border-base-300 [&>tr>td]:px-2.5 [&>tr>td]:py-1">
        {#each shown as one (one.kind + one.id)}
          <tr><td class="font-semibold">{one.name}</td><td>{one.kind}</td><td class="figure">{moment(one.deletedAt)}</td><td class="figure">{moment(one.removedOn)}</td>
            <td class="text-right"><button class="link" aria-label="Restore {one.name}" onclick={() => restore(one)}>Restore</button></td></tr>
        {:else}<tr><td colspan="5" class="quiet">No match.</td></tr>{/each}
      </tbody>
    </table>
  {:else}<p class="quiet">Reading…</p>{/if}
</div>
