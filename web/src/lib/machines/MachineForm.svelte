<script lang="ts">
  import NumberField from '#lib/NumberField.svelte';
  import Part from './Part.svelte';
  import { machineForms } from '../words';
  import EngineTable from './EngineTable.svelte';
  import type { Described, Figure } from './shelf.svelte.ts';

  /** A machine's description, changed in place. Its numbers and their limits are those that the server has. */
  let { machine = $bindable(), figures }: { machine: Described; figures: Figure[] } = $props();

  type Engine = Described['mediaEngines'][number];

  const roles = ['media', 'project', 'renders', 'system'] as const;
  const { processor, memory } = $derived(machine);

  /** 64-bit channels carry 8 bytes a transfer. */
  const bandwidth = $derived(memory.megatransfersPerSecond && memory.channels ? (memory.megatransfersPerSecond * 8 * memory.channels) / 1000 : null);

  const addUnit = () => machine.graphics.push({ name: 'graphics', peakGigaflops: 5000, bandwidthGigabytesPerSecond: 250, memoryGigabytes: 8, busGigabytesPerSecond: 15.75 });
  const firstFormats = (): Engine['capabilities'] => [{ codec: 'avc', chroma: 'quarter', maxBitDepth: 8, maxRaster: { width: 3840, height: 2160 } }];
  const addEngine = () => machine.mediaEngines.push({ name: 'media engine', megapixelsPerSecond: 1000, capabilities: firstFormats() });

  const addDrive = () => machine.drives.push({ roles: [], kind: 'SATA', readMegabytesPerSecond: 500, writeMegabytesPerSecond: 450, latencyMilliseconds: 0.15 });
  const addCooling = () =>
    (machine.cooling = { fanless: false, resistanceKelvinPerWatt: 0.5, capacityJoulesPerKelvin: 200, ambientCelsius: 24, limitCelsius: 95, idleWatts: 30, fullWatts: 140, mainsWatts: null, batteryWatts: null });

  /** What lies on a drive lies on no other. */
  function lay(role: (typeof roles)[number], at: number, on: boolean) {
    machine.drives.forEach((drive, place) => {
      if (place === at && on) drive.roles = roles.filter((one) => one === role || drive.roles.includes(one));
      else drive.roles = drive.roles.filter((one) => one !== role);
    });
  }

  /** Takes a number, and what changes with it. */
  function take(figure: Figure, part: Record<string, unknown>, value: number | null) {
    part[figure.member] = value;
    if (figure.member === 'slowCores') processor.relativeSlowSpeed ??= value ? 0.7 : null;
    if (figure.member === 'batteryWatts' && value === null) machine.onBattery = false;
    // What an engine encodes is asked for once it encodes anything.
    if (figure.member === 'encodedMegapixelsPerSecond') part.encodes = value === null ? null : (part.encodes ?? firstFormats());
  }

  const isAsked = (figure: Figure) => figure.member !== 'relativeSlowSpeed' || processor.slowCores > 0;

  const field = 'grid gap-0.5';
  const text = 'input input-sm w-full';
</script>

{#snippet numbers(name: string, of: object)}
  {@const part = of as Record<string, number | null>}
  {#each figures.filter((figure) => figure.part === name && isAsked(figure)) as figure (figure.member)}
    <label class={field}><span class="quiet">{figure.label}</span><NumberField value={part[figure.member] ?? null} min={figure.min} max={figure.max} whole={figure.isWhole} onchange={(value) => take(figure, part, value)} onempty={figure.isOptional ? () => take(figure, part, null) : undefined} placeholder={figure.isOptional ? '—' : undefined} class="input-sm w-24" /></label>
  {/each}
{/snippet}

<div class="grid gap-4 text-sm">
  <section class="flex flex-wrap items-end gap-3">
    <label class="{field} w-64"><span class="quiet">name</span><input class={text} bind:value={machine.name} maxlength="80" /></label>
    <label class="{field} grow"><span class="quiet">summary</span><input class={text} bind:value={machine.summary} maxlength="200" /></label>
    <label class={field}><span class="quiet">form</span>
      <select class="select select-sm w-36" bind:value={machine.form}>
        <option value={null}>not stated</option>
        {#each Object.entries(machineForms) as [value, name] (value)}<option {value}>{name}</option>{/each}
      </select>
    </label>
  </section>

  <Part name="Processor">
    <label class="{field} w-48"><span class="quiet">name</span><input class={text} bind:value={processor.name} maxlength="200" /></label>
    {@render numbers('processor', processor)}
    <p class="quiet basis-full text-xs">Core speeds are relative to the reference core, on which decoding was timed (1 = the same speed).</p>
  </Part>

  <Part name="Memory">
    {@render numbers('memory', memory)}
    {#if bandwidth}<p class="quiet self-end pb-1.5 text-xs">bandwidth <span class="figure">{bandwidth.toFixed(1)}</span> GB/s</p>{/if}
  </Part>

  {#each machine.graphics as unit, at (at)}
    <Part name={at === 0 ? 'Graphics' : `Graphics ${at + 1}`} onremove={() => machine.graphics.splice(at, 1)}>
      <label class="{field} w-48"><span class="quiet">name</span><input class={text} bind:value={unit.name} maxlength="200" /></label>
      {@render numbers('graphics', unit)}
      <p class="quiet self-end pb-1.5 text-xs">{unit.busGigabytesPerSecond == null ? 'no bus: built in, it shares main memory' : 'on a bus, with memory of its own'}</p>
    </Part>
  {/each}

  {#each machine.mediaEngines as engine, at (at)}
    <Part name={at === 0 ? 'Media engine' : `Media engine ${at + 1}`} onremove={() => machine.mediaEngines.splice(at, 1)}>
      <label class="{field} w-48"><span class="quiet">name</span><input class={text} bind:value={engine.name} maxlength="200" /></label>
      {@render numbers('mediaEngines', engine)}
      <EngineTable rows={engine.capabilities} name={engine.name} does="decodes" />
      {#if engine.encodes}<EngineTable rows={engine.encodes} name="what {engine.name} encodes" does="encodes" />{/if}
    </Part>
  {/each}

  {#each machine.drives as drive, at (at)}
    <Part name={at === 0 ? 'Drive' : `Drive ${at + 1}`} onremove={() => machine.drives.splice(at, 1)}>
      <label class="{field} w-48"><span class="quiet">kind</span><input class={text} bind:value={drive.kind} maxlength="200" list="drive-kinds" /></label>
      {@render numbers('drives', drive)}
      <fieldset class={field}>
        <legend class="quiet">used for</legend>
        <span class="flex h-8 items-center gap-3">
          {#each roles as role (role)}
            <label class="flex items-center gap-1"><input class="checkbox checkbox-xs" type="checkbox" checked={drive.roles.includes(role)} onchange={(event) => lay(role, at, event.currentTarget.checked)} />{role}</label>
          {/each}
        </span>
      </fieldset>
    </Part>
  {/each}
  <datalist id="drive-kinds"><option value="NVMe"></option><option value="SATA"></option><option value="mechanical"></option><option value="striped array"></option></datalist>

  {#if machine.cooling}
    {@const cooling = machine.cooling}
    <Part name="Cooling and power" onremove={() => { machine.cooling = null; machine.onBattery = false; }}>
      {@render numbers('cooling', cooling)}
      <span class="flex items-end gap-3 pb-1.5">
        <label class="flex items-center gap-1"><input class="checkbox checkbox-xs" type="checkbox" bind:checked={cooling.fanless} />fanless</label>
        <label class="flex items-center gap-1"><input class="checkbox checkbox-xs" type="checkbox" bind:checked={machine.onBattery} disabled={cooling.batteryWatts == null} />runs from its battery</label>
      </span>
    </Part>
  {/if}

  {#if machine.places}
    {@const places = machine.places}
    <Part name="Places for parts" onremove={() => (machine.places = null)}>
      <label class="{field} w-28"><span class="quiet">socket</span><input class={text} bind:value={() => places.socket ?? '', (value) => (places.socket = value || null)} maxlength="40" /></label>
      <label class="{field} w-24"><span class="quiet">kind of memory</span><input class={text} bind:value={() => places.memoryKind ?? '', (value) => (places.memoryKind = value || null)} maxlength="40" /></label>
      {@render numbers('places', places)}
      <p class="quiet basis-full text-xs">Advice uses these when it checks whether a part fits. They change no result. An empty field excludes no part: the part is listed with a question mark.</p>
    </Part>
  {/if}

  <Part name="Other">
    <label class="{field} w-64"><span class="quiet">operating system</span><input class={text} bind:value={() => machine.operatingSystem ?? '', (value) => (machine.operatingSystem = value || null)} maxlength="200" /></label>
    <label class={field}><span class="quiet">graphics driver of</span><input class="input input-sm w-36" type="date" bind:value={() => machine.driverDate ?? '', (day) => (machine.driverDate = day || null)} /></label>
    {@render numbers('', machine)}
    <label class={field}><span class="quiet">priced on</span><input class="input input-sm w-36" type="date" bind:value={() => machine.pricedOn ?? '', (day) => (machine.pricedOn = day || null)} /></label>
  </Part>

  <p class="flex gap-4">
    <button class="link" type="button" onclick={addUnit}>Add a graphics unit</button>
    <button class="link" type="button" onclick={addEngine}>Add a media engine</button>
    <button class="link" type="button" onclick={addDrive}>Add a drive</button>
    {#if !machine.places}<button class="link" type="button" onclick={() => (machine.places = { socket: null, coolerWatts: null, memoryKind: null, memorySlots: null, mostGigabytes: null, freeNvme: null, freeSata: null, graphicsMillimetres: null, supplyWatts: null, graphicsWatts: null })}>Enter places for parts</button>{/if}
    {#if !machine.cooling}<button class="link" type="button" onclick={addCooling}>Enter cooling and power</button>{/if}
  </p>
</div>
