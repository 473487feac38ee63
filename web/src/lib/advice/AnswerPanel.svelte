<script lang="ts">
  import { fixed, money, chanceOf } from '#lib/words.ts';
  import type { Answer } from './briefs.svelte.ts';
  import Check from './Check.svelte';
  import PriceCurve from './PriceCurve.svelte';

  /** @prop kept The id of the brief where it is kept as it was answered; null elsewhere. */
  let { answer, kept = null }: { answer: Answer; kept?: string | null } = $props();
  const first = 6;
  let all = $state(false);
  /** The parts of what is recommended, for whoever buys them: on paper nothing can be opened. */
  const bought = $derived(answer.steps.find((step) => step.name === answer.pick?.name && step.parts.length > 0));
  /** The wait for a picture matters where the brief limits it. */
  const waits = $derived(answer.brief.mostStartSeconds != null || answer.brief.mostScrubSeconds != null);
  const several = $derived(answer.timelines.length > 1);
  const steps = $derived(all ? answer.steps : answer.steps.slice(0, first));
</script>

<div class="grid gap-5">
  <div>
    <h2 class="text-2xl font-semibold" data-testid="answer">
      {answer.headline}
      {#if answer.price != null}<span class="figure ml-2 text-lg font-normal">{money(answer.price, answer.currency)}</span>{/if}
    </h2>
    <p class="mt-1">{answer.reason}</p>
    {#if answer.storage}<p class="mt-1" data-testid="storage">{answer.storage}</p>{/if}
    <p class="quiet mt-1 text-sm">{answer.question}</p>
  </div>
  {#if answer.steps.length}
    <section aria-labelledby="sums">
      <h3 id="sums" class="mb-1 font-semibold">What more money buys</h3>
      <PriceCurve {answer} />
      <table class="mt-2 w-full text-sm" data-testid="steps">
        <thead class="bg-base-200 text-left">
          <tr>{#each ['price', 'more than above', 'machine or build', 'headroom', 'probability that all of it plays', ...(waits ? ['playback starts', 'scrubbing shows a frame'] : []), 'limits first', 'noise'] as head (head)}<th scope="col" class="border-b border-base-300 px-2 py-1 font-semibold">{head}</th>{/each}</tr>
        </thead>
        <tbody>
          {#each steps as step (step.price)}
            <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-2 [&>td]:py-1 [&>td]:align-top {step.withinBudget ? '' : 'quiet'}">
              <td class="figure whitespace-nowrap">{money(step.price, answer.currency)}</td>
              <td class="figure whitespace-nowrap">{step.more == null ? '' : `+${step.more}`}</td>
              <td>
                {#if step.machineId}<a class="link" href="/machines?id={step.machineId}">{step.name}</a>
                {:else}
                  <details><summary class="cursor-pointer">{step.name}</summary>
                    <ul class="quiet text-xs">{#each step.parts as part, at (at)}<li class="flex justify-between gap-4"><span>{part.name}</span><span class="figure">{part.price}</span></li>{/each}</ul>
                  </details>
                {/if}
                {#if step.isRecommended}<span class="text-xs font-semibold">recommended</span>{/if}
                {#if !step.withinBudget}<span class="text-xs">beyond the budget</span>{/if}
              </td>
              <td class="figure">{fixed(step.headroom, 2)}×</td>
              <td class="figure">{chanceOf(step.chance)}</td>
              {#if waits}<td class="figure whitespace-nowrap">{fixed(step.startSeconds, 2)} s</td><td class="figure whitespace-nowrap">{fixed(step.scrubSeconds, 2)} s</td>{/if}
              <td>{step.weakest}</td>
              <td class="figure whitespace-nowrap">{step.decibels == null ? 'not stated' : `${step.decibels} dB(A)`}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if answer.steps.length > first}<button class="link mt-1 text-sm" onclick={() => (all = !all)}>{all ? 'Fewer' : `All ${answer.steps.length}`}</button>{/if}
    </section>
  {/if}
  {#if answer.unknown?.length}
    <section aria-labelledby="unknown">
      <h3 id="unknown" class="mb-1 font-semibold">Not enough is known</h3>
      <p class="quiet text-sm">These play all of the work, but a limit of the brief cannot be checked. Find out what is missing and enter it on the machine’s page.</p>
      <ul class="text-sm" data-testid="unknown">
        {#each answer.unknown as one (one.name + one.price)}
          <li class="grid border-b border-base-300 px-2 py-1 sm:grid-cols-[20rem_5rem_1fr]">{#if one.machineId}<a class="link" href="/machines?id={one.machineId}">{one.name}</a>{:else}<span>{one.name}</span>{/if}<span class="figure sm:text-right">{money(one.price, answer.currency)}</span><span class="sm:pl-3">{one.toFindOut} is not entered</span></li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if answer.remedies.length}
    <section aria-labelledby="ways">
      <h3 id="ways" class="mb-1 font-semibold">Working in another way on {answer.owned?.name}</h3>
      <table class="w-full text-sm" data-testid="remedies">
        <thead class="bg-base-200 text-left">
          <tr>{#each ['way of working', 'result', 'cost', 'brief accepts it'] as head (head)}<th scope="col" class="border-b border-base-300 px-2 py-1 font-semibold">{head}</th>{/each}</tr>
        </thead>
        <tbody>
          {#each answer.remedies as remedy (remedy.words)}
            <tr class="[&>td]:border-b [&>td]:border-base-300 [&>td]:px-2 [&>td]:py-1 [&>td]:align-top {remedy.useless ? 'quiet' : ''}">
              <td>{remedy.words}</td><td>{remedy.gain}</td><td>{remedy.cost || '—'}</td><td>{remedy.suffices ? (remedy.accepted ? 'yes' : 'no') : ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </section>
  {/if}
  {#if answer.changes.length}
    <section aria-labelledby="changes">
      <h3 id="changes" class="mb-1 font-semibold">What a single better part would bring to {answer.owned?.name}</h3>
      <ul class="text-sm" data-testid="changes">
        {#each answer.changes as change (change.part)}
          <li class="grid border-b border-base-300 px-2 py-1 sm:grid-cols-[20rem_1fr] {change.gainsNothing ? 'quiet' : ''}"><span>{change.words}</span><span>{change.gain}</span></li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if answer.ladder.length || answer.refused.length}
    <section aria-labelledby="ladder">
      <h3 id="ladder" class="mb-1 font-semibold">Parts for {answer.owned?.name}, by gain for the price</h3>
      {#if answer.path}<p class="mb-1 text-sm">{answer.path}</p>{/if}
      <ul class="text-sm" data-testid="ladder">
        {#each answer.ladder as rung (rung.partIds.join())}
          <li class="grid gap-x-3 border-b border-base-300 px-2 py-1 sm:grid-cols-[20rem_5rem_1fr] {rung.gainsNothing ? 'quiet' : ''}"><span>{rung.words}{#if rung.isUnsure}<span class="quiet" title="unknown whether it fits"> ?</span>{/if}{#if rung.isPath}, <span class="font-semibold">enough</span>{/if}</span><span class="figure sm:text-right">{money(rung.price, answer.currency)}</span><span>{rung.gain}{#if !rung.gainsNothing}, <span class="figure">{fixed(rung.perThousand, 2)}</span> more headroom for 1 000 {answer.currency}{/if}</span></li>
        {/each}
      </ul>
      {#if answer.ladder.some((rung) => rung.isUnsure)}<p class="quiet mt-1 text-xs">Whether a part marked ? fits depends on slots, power supply or space that are not entered for {answer.owned?.name}; they are stated under <em>Places for parts</em> on its page. Processors are tried if its socket is entered.</p>{/if}
      {#if answer.refused.length}
        <details class="mt-1"><summary class="cursor-pointer text-sm">What does not fit, and why</summary><ul class="quiet text-sm">{#each answer.refused as why (why)}<li>{why}</li>{/each}</ul></details>
      {/if}
    </section>
  {/if}
  <section aria-labelledby="why">
    <h3 id="why" class="mb-1 font-semibold">Why</h3>
    {#if answer.owned}
      <details class="print:hidden" data-testid="why-owned"><summary class="cursor-pointer">{answer.owned.name} (yours): {answer.owned.words}, {answer.owned.isMeasured ? 'as measured' : 'as predicted'}{answer.owned.wait ? `; ${answer.owned.wait}` : ''}</summary><Check check={answer.owned} {several} /></details>
    {/if}
    {#if answer.pick}
      <div class="hidden print:block">
        <p class="font-semibold">{answer.pick.name}, passage by passage</p>
        <Check check={answer.pick} {several} />
        {#if bought}<ul class="my-2">{#each bought.parts as part, at (at)}<li>{part.name} <span class="figure">{money(part.price, answer.currency)}</span></li>{/each}</ul>{/if}
      </div>
      <details class="print:hidden" data-testid="why-pick"><summary class="cursor-pointer">{answer.pick.name}{answer.kind === 'nothing' ? ', which comes nearest' : answer.kind === 'buy' ? ', which is recommended' : ', the one to buy if you buy'}, passage by passage{answer.pick.wait ? `; ${answer.pick.wait}` : ''}</summary><Check check={answer.pick} {several} /></details>
    {/if}
    <p class="mt-1 text-sm">{answer.counts}</p>
    {#each answer.notes as note (note)}<p class="quiet text-sm">{note}</p>{/each}
    {#if kept}<p class="mt-1 text-sm print:hidden">Export the figures as <a class="link" href="/api/briefs/{kept}/answer/export" download>json</a>, <a class="link" href="/api/briefs/{kept}/answer/export?format=csv" download>csv</a></p>{/if}
  </section>
</div>
