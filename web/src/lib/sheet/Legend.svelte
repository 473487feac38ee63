<script lang="ts">
  import Comb from '../comb/Comb.svelte';
  import VerdictMark from '../VerdictMark.svelte';

  const Key = 'legend';
  let open = $state(localStorage.getItem(Key) !== 'away');

  function set(to: boolean) {
    open = to;
    localStorage.setItem(Key, to ? 'here' : 'away');
  }
</script>

{#if open}
  <section aria-label="How to read the sheet" class="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-base-300 bg-base-200 px-4 py-1.5 text-xs" data-testid="legend">
    <span>Plays a timeline on this machine and on simulated ones, counts the frames that came too late, and identifies what limits each machine.</span>
    <span class="flex items-center gap-2"><Comb teeth="oooooollooovovoooddddooooo" class="h-3.5 w-24" /> full on time, short late, low overdue, below no new picture, bracket a freeze</span>
    <VerdictMark verdict="holds" /><VerdictMark verdict="wavers" /><VerdictMark verdict="breaks" />
    <span class="flex items-center gap-2"><span class="hatched inline-block h-3.5 w-6 border border-base-300" aria-hidden="true"></span> simulated, automatically at start</span>
    <span><span class="figure">1.5×</span> headroom: the rate it sustains ÷ the rate required</span>
    <a class="link" href="/glossary">Glossary</a>
    <button class="btn btn-xs ml-auto" onclick={() => set(false)}>Hide</button>
  </section>
{:else}
  <button class="btn btn-ghost btn-xs absolute right-2 bottom-1 z-20" onclick={() => set(true)}>How to read this</button>
{/if}
