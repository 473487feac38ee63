<script lang="ts">
  import type { Effect } from '../api/client';
  import { freshEffect } from './edits';
  import type { Editor } from './editor.svelte';

  let { effects, editor, label, onchange }: { effects: Effect[]; editor: Editor; label: string; onchange: (effects: Effect[]) => void } = $props();
  const kinds = $derived(editor.kinds);
  let lookProblem = $state<string | null>(null);
  const byId = $derived(new Map(kinds.map((kind) => [kind.id, kind])));
  const groups = $derived([...Map.groupBy(kinds, (kind) => kind.group)]);
  const groupWords: Record<string, string> = { colour: 'Colour', detail: 'Detail', motion: 'Motion', geometry: 'Geometry', words: 'Words', standInsOnly: 'Stand-ins only' };

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
    if (kind) onchange([...effects, freshEffect(kind)]);
    wanted = '';
  }
</script>

<div class="grid gap-1">
  {#each effects as effect, at (at)}
    {@const kind = byId.get(effect.id)}
    <details class="rounded-sm bg-base-200 px-2 py-0.5 text-sm">
      <summary class="flex cursor-pointer items-center gap-2">
        <span class="font-semibold">{kind?.label ?? effect.id}</span>
        {#if effect.text}<span class="quiet truncate">{effect.text}</span>{/if}
      </summary>
      <div class="grid grid-cols-[1fr_5.5rem_5rem] items-center gap-x-2 gap-y-1 py-1">
        {#if kind?.textLabel === 'look'}
          <label class="contents">
            <span>look</span>
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
            <input
              class="input input-xs figure text-right"
              type="number"
              min={setting.min}
              max={setting.max}
              step="any"
              value={effect.settings[setting.name] ?? setting.default}
              onchange={(event) => replace(at, { ...effect, settings: { ...effect.settings, [setting.name]: event.currentTarget.valueAsNumber || 0 } })}
            />
            <span class="quiet text-xs">{setting.unit} <span class="figure">{setting.min}–{setting.max}</span></span>
          </label>
        {/each}
        {#if kind}<p class="quiet col-span-3 text-xs">{kind.about} {kind.runsOn === 'oneCore' ? 'Runs on one core.' : kind.runsOn === 'standInsOnly' ? 'Only stand-ins play it.' : ''} {kind.eightBit ? 'Works at 8 bit here.' : ''}</p>{/if}
        <button class="btn btn-xs col-span-3 w-fit" onclick={() => onchange(effects.filter((_, i) => i !== at))}>Take {kind?.label ?? effect.id} off</button>
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
