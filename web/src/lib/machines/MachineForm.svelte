<script lang="ts">
  import NumberField from '#lib/NumberField.svelte';
  import Part from './Part.svelte';
  import { machineForms } from '../words';
  import EngineTable from './EngineTable.svelte';
  import type { Described } from './shelf.svelte.ts';

  /** A machine's description, changed in place. */
  let { machine = $bindable() }: { machine: Described } = $props();

  const roles = ['media', 'project', 'renders', 'system'] as const;
  const { processor, memory } = $derived(machine);

  /** 64-bit channels carry 8 bytes a transfer. */
  const bandwidth = $derived(memory.megatransfersPerSecond && memory.channels ? (memory.megatransfersPerSecond * 8 * memory.channels) / 1000 : null);

  const addUnit = () => machine.graphics.push({ name: 'graphics', peakGigaflops: 5000, bandwidthGigabytesPerSecond: 250, memoryGigabytes: 8, busGigabytesPerSecond: 15.75 });
  const addEngine = () => machine.mediaEngines.push({ name: 'media engine', megapixelsPerSecond: 1000, capabilities: [{ codec: 'avc', chroma: 'quarter', maxBitDepth: 8, maxRaster: { width: 3840, height: 2160 } }] });
  /** What it encodes is asked for once it encodes anything. */
  function encodesAt(engine: Described['mediaEngines'][number], rate: number | null) {
    engine.encodedMegapixelsPerSecond = rate;
    engine.encodes = rate === null ? null : (engine.encodes ?? [{ codec: 'avc', chroma: 'quarter', maxBitDepth: 8, maxRaster: { width: 3840, height: 2160 } }]);
  }

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

  const field = 'grid gap-0.5';
  const text = 'input input-sm w-full';
</script>

{#snippet number(label: string, value: number | null | undefined, take: (value: number) => void, min: number, max: number | null = null, whole = false, clear: (() => void) | undefined = undefined)}
  <label class={field}><span class="quiet">{label}</span><NumberField value={value ?? null} {min} {max} {whole} onchange={take} onempty={clear} placeholder={clear ? '—' : undefined} class="input-sm w-24" /></label>
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
    {@render number('price, EUR', machine.price, (value) => (machine.price = value), 0, 1e7, false, () => (machine.price = null))}
    <label class={field}><span class="quiet">priced on</span><input class="input input-sm w-36" type="date" bind:value={() => machine.pricedOn ?? '', (day) => (machine.pricedOn = day || null)} /></label>
  </section>

  <Part name="Processor">
    <label class="{field} w-48"><span class="quiet">name</span><input class={text} bind:value={processor.name} maxlength="200" /></label>
    {@render number('cores', processor.cores, (value) => (processor.cores = value), 1, 256, true)}
    {@render number('threads', processor.threads, (value) => (processor.threads = value), 1, 512, true)}
    {@render number('core speed', processor.relativeCoreSpeed, (value) => (processor.relativeCoreSpeed = value), 0.05, 20)}
    {@render number('clock, GHz', processor.clockGigahertz, (value) => (processor.clockGigahertz = value), 0.1, 12, false, () => (processor.clockGigahertz = null))}
    {@render number('slow cores', processor.slowCores, (value) => { processor.slowCores = value; processor.relativeSlowSpeed ??= value ? 0.7 : null; }, 0, 255, true)}
    {#if processor.slowCores}{@render number('slow core speed', processor.relativeSlowSpeed, (value) => (processor.relativeSlowSpeed = value), 0.05, 20)}{/if}
    {@render number('vectors, bit', processor.vectorBits, (value) => (processor.vectorBits = value), 64, 2048, true, () => (processor.vectorBits = null))}
    <p class="quiet basis-full text-xs">Core speeds are relative to the reference core, on which decoding was timed (1 = the same speed).</p>
  </Part>

  <Part name="Memory">
    {@render number('fitted, GB', memory.gigabytes, (value) => (memory.gigabytes = value), 0.5, 8192)}
    {@render number('in use at start, GB', memory.inUseGigabytes, (value) => (memory.inUseGigabytes = value), 0, 8192)}
    {@render number('sticks', memory.sticks, (value) => (memory.sticks = value), 1, 64, true, () => (memory.sticks = null))}
    {@render number('channels', memory.channels, (value) => (memory.channels = value), 1, 24, true, () => (memory.channels = null))}
    {@render number('speed, MT/s', memory.megatransfersPerSecond, (value) => (memory.megatransfersPerSecond = value), 200, 40000, true, () => (memory.megatransfersPerSecond = null))}
    {#if bandwidth}<p class="quiet self-end pb-1.5 text-xs">bandwidth <span class="figure">{bandwidth.toFixed(1)}</span> GB/s</p>{/if}
  </Part>

  {#each machine.graphics as unit, at (at)}
    <Part name={at === 0 ? 'Graphics' : `Graphics ${at + 1}`} onremove={() => machine.graphics.splice(at, 1)}>
      <label class="{field} w-48"><span class="quiet">name</span><input class={text} bind:value={unit.name} maxlength="200" /></label>
      {@render number('peak, Gflop/s', unit.peakGigaflops, (value) => (unit.peakGigaflops = value), 10, 2e6)}
      {@render number('memory, GB', unit.memoryGigabytes, (value) => (unit.memoryGigabytes = value), 0.1, 1024)}
      {@render number('memory rate, GB/s', unit.bandwidthGigabytesPerSecond, (value) => (unit.bandwidthGigabytesPerSecond = value), 1, 20000)}
      {@render number('bus, GB/s', unit.busGigabytesPerSecond, (value) => (unit.busGigabytesPerSecond = value), 0.1, 1000, false, () => (unit.busGigabytesPerSecond = null))}
      <p class="quiet self-end pb-1.5 text-xs">{unit.busGigabytesPerSecond == null ? 'no bus: built in, it shares main memory' : 'on a bus, with memory of its own'}</p>
    </Part>
  {/each}

  {#each machine.mediaEngines as engine, at (at)}
    <Part name={at === 0 ? 'Media engine' : `Media engine ${at + 1}`} onremove={() => machine.mediaEngines.splice(at, 1)}>
      <label class="{field} w-48"><span class="quiet">name</span><input class={text} bind:value={engine.name} maxlength="200" /></label>
      {@render number('Mpixel/s', engine.megapixelsPerSecond, (value) => (engine.megapixelsPerSecond = value), 1, 1e6)}
      {@render number('encodes, Mpixel/s', engine.encodedMegapixelsPerSecond ?? null, (value) => encodesAt(engine, value), 1, 1e6, false, () => encodesAt(engine, null))}
      <EngineTable rows={engine.capabilities} name={engine.name} does="decodes" />
      {#if engine.encodes}<EngineTable rows={engine.encodes} name="what {engine.name} encodes" does="encodes" />{/if}
    </Part>
  {/each}

  {#each machine.drives as drive, at (at)}
    <Part name={at === 0 ? 'Drive' : `Drive ${at + 1}`} onremove={() => machine.drives.splice(at, 1)}>
      <label class="{field} w-48"><span class="quiet">kind</span><input class={text} bind:value={drive.kind} maxlength="200" list="drive-kinds" /></label>
      {@render number('reads, MB/s', drive.readMegabytesPerSecond, (value) => (drive.readMegabytesPerSecond = value), 1, 200000)}
      {@render number('writes, MB/s', drive.writeMegabytesPerSecond, (value) => (drive.writeMegabytesPerSecond = value), 1, 200000)}
      {@render number('latency, ms', drive.latencyMilliseconds, (value) => (drive.latencyMilliseconds = value), 0, 10000)}
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
      {@render number('idle, W', cooling.idleWatts, (value) => (cooling.idleWatts = value), 0.1, 2000)}
      {@render number('all cores busy, W', cooling.fullWatts, (value) => (cooling.fullWatts = value), 0.1, 5000)}
      {@render number('limit on mains, W', cooling.mainsWatts, (value) => (cooling.mainsWatts = value), 0.1, 5000, false, () => (cooling.mainsWatts = null))}
      {@render number('limit on battery, W', cooling.batteryWatts, (value) => (cooling.batteryWatts = value), 0.1, 5000, false, () => { cooling.batteryWatts = null; machine.onBattery = false; })}
      {@render number('resistance, K/W', cooling.resistanceKelvinPerWatt, (value) => (cooling.resistanceKelvinPerWatt = value), 0.01, 100)}
      {@render number('heat capacity, J/K', cooling.capacityJoulesPerKelvin, (value) => (cooling.capacityJoulesPerKelvin = value), 1, 100000)}
      {@render number('room, °C', cooling.ambientCelsius, (value) => (cooling.ambientCelsius = value), -40, 60)}
      {@render number('limit, °C', cooling.limitCelsius, (value) => (cooling.limitCelsius = value), 40, 130)}
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
      {@render number('cooler, W', places.coolerWatts, (value) => (places.coolerWatts = value), 1, 2000, false, () => (places.coolerWatts = null))}
      <label class="{field} w-24"><span class="quiet">kind of memory</span><input class={text} bind:value={() => places.memoryKind ?? '', (value) => (places.memoryKind = value || null)} maxlength="40" /></label>
      {@render number('slots for it', places.memorySlots, (value) => (places.memorySlots = value), 1, 64, true, () => (places.memorySlots = null))}
      {@render number('maximum, GB', places.mostGigabytes, (value) => (places.mostGigabytes = value), 1, 8192, false, () => (places.mostGigabytes = null))}
      {@render number('free for NVMe', places.freeNvme, (value) => (places.freeNvme = value), 0, 16, true, () => (places.freeNvme = null))}
      {@render number('free for SATA', places.freeSata, (value) => (places.freeSata = value), 0, 32, true, () => (places.freeSata = null))}
      {@render number('graphics, mm', places.graphicsMillimetres, (value) => (places.graphicsMillimetres = value), 0, 1000, false, () => (places.graphicsMillimetres = null))}
      {@render number('power supply, W', places.supplyWatts, (value) => (places.supplyWatts = value), 50, 10000, false, () => (places.supplyWatts = null))}
      {@render number('graphics draw, W', places.graphicsWatts, (value) => (places.graphicsWatts = value), 0, 5000, false, () => (places.graphicsWatts = null))}
      <p class="quiet basis-full text-xs">Advice uses these when it checks whether a part fits. They change no result. An empty field excludes no part: the part is listed with a question mark.</p>
    </Part>
  {/if}

  <Part name="Other">
    <label class="{field} w-64"><span class="quiet">operating system</span><input class={text} bind:value={() => machine.operatingSystem ?? '', (value) => (machine.operatingSystem = value || null)} maxlength="200" /></label>
    <label class={field}><span class="quiet">graphics driver of</span><input class="input input-sm w-36" type="date" bind:value={() => machine.driverDate ?? '', (day) => (machine.driverDate = day || null)} /></label>
    {@render number('noise at full load, dB', machine.noiseDecibels, (value) => (machine.noiseDecibels = value), 0, 120, false, () => (machine.noiseDecibels = null))}
  </Part>

  <p class="flex gap-4">
    <button class="link" type="button" onclick={addUnit}>Add a graphics unit</button>
    <button class="link" type="button" onclick={addEngine}>Add a media engine</button>
    <button class="link" type="button" onclick={addDrive}>Add a drive</button>
    {#if !machine.places}<button class="link" type="button" onclick={() => (machine.places = { socket: null, coolerWatts: null, memoryKind: null, memorySlots: null, mostGigabytes: null, freeNvme: null, freeSata: null, graphicsMillimetres: null, supplyWatts: null, graphicsWatts: null })}>Enter places for parts</button>{/if}
    {#if !machine.cooling}<button class="link" type="button" onclick={addCooling}>Enter cooling and power</button>{/if}
  </p>
</div>
