<script lang="ts">
  import { page } from '$app/state';
  import { live } from './live.svelte';
  import { theme } from './theme.svelte';
  import Keys from './Keys.svelte';

  const places = [
    ['/machines', 'Machines'],
    ['/programs', 'Programs'],
    ['/footage', 'Footage'],
    ['/timelines', 'Timelines'],
    ['/trials', 'Trials'],
    ['/runs', 'Runs'],
    ['/compare', 'Compare'],
    ['/advice', 'Advice'],
    ['/glossary', 'Glossary']
  ];
  let keys: Keys;
</script>

<header class="flex min-h-11 shrink-0 flex-wrap items-center gap-x-5 border-b border-base-300 bg-base-200 px-4">
  <a href="/timelines" class="flex items-center gap-2 font-semibold">
    <img src="/mark.svg" alt="" class="h-5 w-5" /> Hardy Bench
  </a>
  <nav aria-label="Main" class="places order-last flex h-11 w-full gap-1 overflow-x-auto md:order-none md:w-auto">
    {#each places as [href, name] (href)}
      {@const here = page.url.pathname.startsWith(href)}
      <a {href} aria-current={here ? 'page' : undefined}
        class="flex items-center border-b-2 px-2.5 {here ? 'border-primary font-semibold' : 'border-transparent hover:border-base-300'}">
        {name}
      </a>
    {/each}
  </nav>
  <div class="ml-auto flex items-center gap-2 text-sm">
    {#if live.play?.running}
      <a href="/timelines/{live.play.timelineId}" class="text-primary" data-testid="running">
        Playing on {live.play.machineName}:
        {#if live.play.stepCount !== 1 && live.play.step}{live.play.step},{/if}
        <span class="figure">{Math.round((live.play.frames / live.play.of) * 100)} %</span>
      </a>
    {/if}
    <a class="btn btn-ghost btn-sm" href="/deleted">Deleted</a>
    <button class="btn btn-ghost btn-sm" onclick={() => theme.change()}>{theme.dark ? 'Light' : 'Dark'}</button>
    <button class="btn btn-ghost btn-sm" onclick={() => keys.open()}>Keys <kbd class="figure">?</kbd></button>
  </div>
</header>
<Keys bind:this={keys} />

<style>
  /* Where they do not fit, the last one fades: there are more to the right. */
  @media (max-width: 767px) {
    .places {
      mask-image: linear-gradient(to right, black calc(100% - 3rem), transparent);
      padding-right: 3rem;
    }
  }
</style>
