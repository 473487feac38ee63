<script lang="ts">
  import { onMount } from 'svelte';
  import { api, type Schemas } from '#lib/api/client.ts';
  import NumberField from '#lib/NumberField.svelte';
  import WeekForm from './WeekForm.svelte';
  import { machineForms, scales } from '#lib/words.ts';
  import type { Brief } from './briefs.svelte.ts';

  let { brief = $bindable() }: { brief: Brief } = $props();
  let timelines = $state<Schemas['TimelineView'][]>([]);
  let machines = $state<Schemas['MachineView'][]>([]);
  let byHours = $state(false);
  const readTimelines = async () => (timelines = (await api.GET('/api/timelines')).data ?? []);
  onMount(readTimelines);
  let programs = $state<Schemas['EditingProgram'][]>([]);
  onMount(async () => (programs = ((await api.GET('/api/programs')).data ?? []).map((stored) => stored.program)));
  onMount(async () => (machines = (await api.GET('/api/machines')).data ?? []));

  type Way = NonNullable<Brief['mayUse']>[number];
  const ways: Record<Way, string> = {
    closeOthers: 'other programs closed',
    intermediates: 'intermediates, the same raster',
    preRenders: 'passages rendered beforehand',
    halfProxies: 'proxies, half the raster',
    quarterProxies: 'proxies, a quarter',
    halfScale: 'preview at half scale',
    quarterScale: 'preview at quarter scale',
    halfRate: 'half the frame rate, from 40 frames a second'
  };

  /** A list with one thing more or less; none rather than an empty one. */
  const toggled = <T,>(list: T[] | null | undefined, one: T, on: boolean) => {
    const others = (list ?? []).filter((each) => each !== one);
    const all = on ? [...others, one] : others;
    return all.length ? all : null;
  };
  /** Hours are stated of what is chosen and of nothing else. */
  const hours = (id: string, value: number | null) => {
    const all = Object.fromEntries(Object.entries(brief.hoursAWeek ?? {}).filter(([other]) => other !== id));
    if (value !== null) all[id] = value;
    brief.hoursAWeek = Object.keys(all).length ? all : null;
  };
  const choose = (id: string, on: boolean) => {
    brief.timelines = toggled(brief.timelines, id, on) ?? [];
    if (!on) hours(id, null);
  };
  /** A week that was written stands for all of the work. */
  async function written(timeline: Schemas['Timeline'], all: number) {
    byHours = false;
    await readTimelines();
    [brief.timelines, brief.hoursAWeek] = [[timeline.id], null];
    hours(timeline.id, all);
  }
  const others = (change: Partial<NonNullable<Brief['others']>>) => {
    const next = { cores: 0, gigabytes: 0, ...brief.others, ...change };
    brief.others = next.cores || next.gigabytes ? next : null;
  };
</script>

<form class="grid gap-3 text-sm" onsubmit={(event) => event.preventDefault()} data-testid="brief">
  <input class="input input-sm w-full font-semibold" aria-label="Name" maxlength="80" bind:value={brief.name} />
  <fieldset>
    <legend class="font-semibold">Which work has to play in real time?</legend>
    {#each timelines as timeline (timeline.id)}
      <label class="flex items-center gap-2 py-0.5">
        <input type="checkbox" class="checkbox checkbox-sm" checked={brief.timelines.includes(timeline.id)} onchange={(event) => choose(timeline.id, event.currentTarget.checked)} />
        {timeline.title}
      </label>
      {#if brief.timelines.includes(timeline.id)}
        <label class="quiet flex items-center gap-2 pl-7 text-xs">new footage, hours a week
          <NumberField class="input-xs w-16" min={0} max={1000} placeholder="—" label="Hours a week of {timeline.title}" value={brief.hoursAWeek?.[timeline.id] ?? null} onempty={() => hours(timeline.id, null)} onchange={(value) => hours(timeline.id, value)} />
        </label>
      {/if}
    {/each}
    <button type="button" class="link mt-1 text-left" aria-expanded={byHours} onclick={() => (byHours = !byHours)}>{byHours ? 'Cancel' : 'None of these? Enter the footage of a week in hours'}</button>
    {#if byHours}<WeekForm onwritten={written} />{/if}
  </fieldset>
  <label class="row"><span class="font-semibold">What may it cost?</span>
    <span><NumberField class="input-sm w-24" min={1} max={10000000} placeholder="no limit" label="Budget" value={brief.budget ?? null} onempty={() => (brief.budget = null)} onchange={(budget) => (brief.budget = budget)} /> EUR</span>
  </label>
  <label class="row"><span class="font-semibold">Which machine do you own?</span>
    <select class="select select-sm w-44" value={brief.owned ?? ''} onchange={(event) => (brief.owned = event.currentTarget.value || null)}>
      <option value="">nothing</option>
      {#each machines as machine (machine.id)}<option value={machine.id}>{machine.name}</option>{/each}
    </select>
  </label>
  <label class="row"><span class="font-semibold">Which program do you edit in?</span>
    <select class="select select-sm w-44" value={brief.program ?? ''} onchange={(event) => (brief.program = event.currentTarget.value || null)}>
      <option value="">Hardy Bench player</option>
      {#each programs as program (program.id)}<option value={program.id}>{program.name}</option>{/each}
    </select>
  </label>
  <details class="border-t border-base-300 pt-2">
    <summary class="cursor-pointer font-semibold">More</summary>
    <div class="mt-2 grid gap-2">
      <label class="row">good enough at a preview scale of
        <select class="select select-sm w-24" bind:value={brief.scale}>
          {#each scales as scale (scale)}<option value={scale}>{scale}</option>{/each}
        </select>
      </label>
      <label class="row">the work may grow to
        <span><NumberField class="input-sm w-16" min={1} max={10} label="Growth" value={brief.growth ?? 1} onchange={(growth) => (brief.growth = growth)} /> times</span>
      </label>
      <label class="row">stored footage
        <span><NumberField class="input-sm w-20" min={0.1} max={1000000} placeholder="unknown" label="Hours of stored footage" value={brief.storedHours ?? null} onempty={() => (brief.storedHours = null)} onchange={(kept) => (brief.storedHours = kept)} /> h</span>
      </label>
      <label class="row">a working session lasts
        <span><NumberField class="input-sm w-16" min={0} max={1440} label="Minutes of a working session" value={brief.sessionMinutes ?? 60} onchange={(minutes) => (brief.sessionMinutes = minutes)} /> min</span>
      </label>
      <p class="quiet text-xs">Every passage must still hold at its end, when the machine is warm.</p>
      <label class="flex items-center gap-2"><input type="checkbox" class="checkbox checkbox-sm" bind:checked={brief.onBattery} /> the work is done on battery</label>
      <label class="row">playback starts within
        <span><NumberField class="input-sm w-16" min={0.01} max={60} placeholder="any" label="Seconds until playing begins" value={brief.mostStartSeconds ?? null} onempty={() => (brief.mostStartSeconds = null)} onchange={(seconds) => (brief.mostStartSeconds = seconds)} /> s</span>
      </label>
      <label class="row">scrubbing shows a frame within
        <span><NumberField class="input-sm w-16" min={0.01} max={60} placeholder="any" label="Seconds until a frame shows" value={brief.mostScrubSeconds ?? null} onempty={() => (brief.mostScrubSeconds = null)} onchange={(seconds) => (brief.mostScrubSeconds = seconds)} /> s</span>
      </label>
      <div class="row">other programs stay open
        <span class="flex items-center gap-1">
          <NumberField class="input-sm w-12" min={0} max={256} label="Cores that other programs keep busy" value={brief.others?.cores ?? 0} onchange={(cores) => others({ cores })} /> cores,
          <NumberField class="input-sm w-12" min={0} max={8192} label="GB that other programs hold" value={brief.others?.gigabytes ?? 0} onchange={(gigabytes) => others({ gigabytes })} /> GB
        </span>
      </div>
      <label class="row">no louder than
        <span><NumberField class="input-sm w-16" min={1} max={140} placeholder="any" label="Noise" value={brief.mostDecibels ?? null} onempty={() => (brief.mostDecibels = null)} onchange={(decibels) => (brief.mostDecibels = decibels)} /> dB(A)</span>
      </label>
      <fieldset>
        <legend class="quiet">only these forms (none ticked: any)</legend>
        <div class="flex flex-wrap gap-x-3">
          {#each Object.entries(machineForms) as [form, words] (form)}
            <label class="flex items-center gap-1.5"><input type="checkbox" class="checkbox checkbox-xs" checked={brief.forms?.includes(form as keyof typeof machineForms) ?? false} onchange={(event) => (brief.forms = toggled(brief.forms, form as keyof typeof machineForms, event.currentTarget.checked))} />{words}</label>
          {/each}
        </div>
      </fieldset>
      <fieldset>
        <legend class="quiet">acceptable instead of a new machine</legend>
        {#each Object.entries(ways) as [way, words] (way)}
          <label class="flex items-center gap-1.5"><input type="checkbox" class="checkbox checkbox-xs" checked={brief.mayUse?.includes(way as Way) ?? false} onchange={(event) => (brief.mayUse = toggled(brief.mayUse, way as Way, event.currentTarget.checked))} />{words}</label>
        {/each}
      </fieldset>
      <label class="flex items-center gap-2"><input type="checkbox" class="checkbox checkbox-sm" bind:checked={brief.builds} /> machines may be built from parts</label>
    </div>
  </details>
</form>

<style>
  .row {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.5rem;
  }
</style>
