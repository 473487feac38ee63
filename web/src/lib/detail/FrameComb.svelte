<script lang="ts">
  import type { Mark, Schemas } from '../api/client';
  import Comb from '../comb/Comb.svelte';
  import { fixed as figure, reasonWord, statusWord } from '../words';

  let {
    frames,
    frameMs,
    marks,
    chosen = $bindable(0)
  }: { frames: Schemas['FrameColumns']; frameMs: number; marks: Mark[]; chosen: number } = $props();
  const last = $derived(frames.frame.length - 1);
  /** While the pointer is over it, the frame it points at. A click fixes the choice; until the first, what is pointed at is chosen. */
  let pointed = $state<number | null>(null);
  let fixed = $state(false);
  const at = $derived(Math.min(pointed ?? chosen, last));
  const marked = $derived(marks.flatMap((mark) => (mark.frame === null ? [] : [mark.frame - frames.frame[0]])));
  const status = $derived(frames.statuses[at]);
  /** How long after its slot began an overdue frame was shown. */
  const shownLater = $derived(status === 'overdue' && frames.lateness[at] !== null ? `, shown ${figure(frames.lateness[at]! / 1000)} s after its slot began` : '');

  function point(event: PointerEvent) {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    pointed = Math.max(0, Math.min(last, Math.floor(((event.clientX - box.left) / box.width) * (last + 1))));
    if (!fixed) chosen = pointed;
  }

  function fix() {
    if (pointed === null) return;
    [chosen, fixed] = [pointed, true];
  }

  function key(event: KeyboardEvent) {
    const by = { ArrowLeft: -1, ArrowRight: 1, Home: -last, End: last }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    [chosen, pointed, fixed] = [Math.max(0, Math.min(last, at + by)), null, true];
  }
</script>

{#if last >= 0}
  <div>
    <div
      role="slider"
      tabindex="0"
      aria-label="Frame"
      aria-valuemin={frames.frame[0]}
      aria-valuemax={frames.frame[last]}
      aria-valuenow={frames.frame[at]}
      aria-valuetext="frame {frames.frame[at]}, {frames.timecodes[at]}, {statusWord[status]}{shownLater} {reasonWord[frames.reasons[at]]}"
      onpointermove={point}
      onpointerleave={() => (pointed = null)}
      onclick={fix}
      onkeydown={key}
    >
      <Comb teeth={frames.teeth} {frameMs} chosen={at} {marked} class="h-14 w-full" />
    </div>
    <div class="mt-1 flex flex-wrap gap-x-3 text-xs">
      <span class="figure">{frames.timecodes[at]}</span>
      <span>frame <span class="figure">{frames.frame[at]}</span></span>
      <b class="font-semibold">{statusWord[status]}</b>{shownLater}
      {#if frames.reasons[at] !== 'none'}
        <span class="quiet">{reasonWord[frames.reasons[at]]}</span>
      {:else}
        <span class="quiet">
          ms: read <span class="figure">{frames.read[at]}</span>, decode <span class="figure">{frames.decode[at]}</span>, effects
          <span class="figure">{frames.effects[at]}</span>, waited <span class="figure">{frames.wait[at]}</span>, queue <span class="figure">{frames.queue[at]}</span>
        </span>
      {/if}
    </div>
    <p class="quiet mt-1 text-xs">Full tooth: on time. Short: late. Low: an overdue frame. Mark below: no new picture. Bracket: freeze. Flag: a mark. A click chooses a frame.</p>
  </div>
{/if}
