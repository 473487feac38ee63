<script lang="ts">
  import type { Effect } from '../api/client';
  import NumberField from '../NumberField.svelte';
  import { freshEffect } from './edits';
  import type { Editor } from './editor.svelte';

  let { effects, editor, label, onchange }: { effects: Effect[]; editor: Editor; label: string; onchange: (effects: Effect[]) => void } = $props();
  const kinds = $derived(editor.kinds);
  let lookProblem = $state<string | null>(null);
  const byId = $derived(new Map(kinds.map((kind) => [kind.id, kind])));
  const groups = $derived([...Map.groupBy(kinds, (kind) => kind.group)]);
  const groupWords: Record<string, string> = { colour: 'Colour', detail: 'Detail', motion: 'Motion', geometry: 'Geometry', words: 'Words', standInsOnly: 'Stand-ins only' };

  /** The effect that was added last stands open, so that it is seen what can be set. */
  let opened = $state<number | null>(null);

  function swap(at: number, to: number) {
    onchange(effects.map((one, i) => (i === at ? effects[to] : i === to ? effects[at] : one)));
    opened = opened === at ? to : opened === to ? at : opened;
  }

  const replace = (at: number, effect: Effect) => onchange(effects.map((one, i) => (i === at ? effect : one)));

  async function addLook(input: HTMLInputElement, at: number, effect: Effect) {
    try {
      if (input.files?.[0]) replace(at, { ...effect, text: await editor.addLook(input.files[0]) });
      lookProblem = null;
    } catch (failure) {
      lookProblem = (failure as Error).message;
    }
    input.value = '';
  }

  let wanted = $state('');

  // Not as soon as it is chosen: with the keyboard one passes others on the way.
  function add() {
    const kind = byId.get(wanted);
    if (kind) {
      opened = effects.length;
      onchange([...effects, freshEffect(kind)]);
    }
    wanted = '';
  }
</script>

<div class="grid gap-1">
  {#each effects as effect, at (at)}
    {@const kind = byId.get(effect.id)}
    <details class="group rounded-sm bg-base-200 px-2 py-0.5 text-sm" open={opened === at}>
      <summary class="flex cursor-pointer items-center gap-2">
        <span aria-hidden="true" class="quiet transition-transform group-open:rotate-90">▸</span>
        <span class="font-semibold {effect.isOff ? 'line-through decoration-1' : ''}">{kind?.label ?? effect.id}</span>
        {#if effect.isOff}<span class="quiet">off</span>{/if}
        {#if effect.text}<span class="quiet truncate">{effect.text}</span>{/if}
      </summary>
      <div class="grid grid-cols-[1fr_5.5rem_5rem] items-center gap-x-2 gap-y-1 py-1">
        {#if kind?.textLabel === 'look'}
          <label class="contents">
            <span>look-up table</span>
            <select class="select select-xs col-span-2" value={effect.text ?? ''} onchange={(event) => replace(at, { ...effect, text: event.currentTarget.value })}>
              {#each editor.looks as look, i (i)}<option value={look}>{look}</option>{/each}
            </select>
          </label>
          <label class="contents">
            <span>or a .cube file</span>
            <input class="file-input file-input-xs col-span-2" type="file" accept=".cube" onchange={(event) => addLook(event.currentTarget, at, effect)} />
          </label>
          {#if lookProblem}<p role="alert" class="col-span-3 text-error">{lookProblem}</p>{/if}
        {:else if kind?.textLabel}
          <label class="contents">
            <span>{kind.textLabel}</span>
            <input class="input input-xs col-span-2" value={effect.text ?? ''} onchange={(event) => replace(at, { ...effect, text: event.currentTarget.value })} />
          </label>
        {/if}
        {#each kind?.settings ?? [] as setting, i (i)}
          <label class="contents">
            <span>{setting.label}</span>
            <NumberField
              class="input-xs w-full"
              min={setting.min}
              max={setting.max}
              value={effect.settings[setting.name] ?? setting.default}
              onchange={(value) => replace(at, { ...effect, settings: { ...effect.settings, [setting.name]: value } })}
            />
            <span class="quiet text-xs">{setting.unit} <span class="figure">{setting.min}–{setting.max}</span></span>
          </label>
        {/each}
        {#if kind}<p class="quiet col-span-3 text-xs">{kind.about} {kind.runsOn === 'oneCore' ? 'Runs on one core.' : kind.runsOn === 'standInsOnly' ? 'Only stand-ins play it.' : ''} {kind.eightBit ? 'Works at 8 bit here.' : ''}</p>{/if}
        <div class="col-span-3 flex flex-wrap gap-1">
          <label class="mr-2 flex items-center gap-1.5"><input class="checkbox checkbox-xs" type="checkbox" checked={!effect.isOff} onchange={() => replace(at, { ...effect, isOff: !effect.isOff })} /> on</label>
          <button class="btn btn-xs" disabled={at === 0} aria-label="Move {kind?.label ?? effect.id} earlier" onclick={() => swap(at, at - 1)}>Earlier</button>
          <button class="btn btn-xs" disabled={at === effects.length - 1} aria-label="Move {kind?.label ?? effect.id} later" onclick={() => swap(at, at + 1)}>Later</button>
          <button class="btn btn-xs" onclick={() => onchange(effects.filter((_, i) => i !== at))}>Remove {kind?.label ?? effect.id}</button>
        </div>
      </div>
    </details>
  {/each}
  <div class="flex gap-1">
  <select class="select select-xs flex-1" aria-label="An effect to add {label}" bind:value={wanted} onkeydown={(event) => event.key === 'Enter' && (event.preventDefault(), add())}>
    <option value="">add an effect…</option>
    {#each groups as [group, members] (group)}
      <optgroup label={groupWords[group] ?? group}>
        {#each members as kind (kind.id)}<option value={kind.id}>{kind.label}</option>{/each}
      </optgroup>
    {/each}
  </select>
  <button class="btn btn-xs" disabled={!wanted} onclick={add}>Add</button>
  </div>
</div>
