<script lang="ts">
  import { page } from '$app/state';

  const places = [
    ['/timelines', 'Timelines', 'what is played, and every machine by the passages of it'],
    ['/runs', 'Runs', 'everything that was played'],
    ['/machines', 'Machines', 'this machine and the stand-ins'],
    ['/advice', 'Advice', 'what to buy, or what to change']
  ];
</script>

<svelte:head><title>{page.status === 404 ? 'No such page' : 'An error'} · Hardy Bench</title></svelte:head>
<div class="p-6">
  <h1 class="text-lg font-semibold">{page.status === 404 ? 'There is no such page' : 'This page could not be shown'}</h1>
  <p class="mt-1">{page.status === 404 ? `Nothing is at ${page.url.pathname}. The address may be misspelt, or what it showed was deleted.` : page.error?.message}</p>
  <ul class="mt-3 grid gap-1" data-testid="ways-on">
    {#each places as [href, name, what] (href)}<li><a class="link" {href}>{name}</a> <span class="quiet text-sm">{what}</span></li>{/each}
    <li><a class="link" href="/deleted">Deleted</a> <span class="quiet text-sm">what can be restored</span></li>
  </ul>
</div>
