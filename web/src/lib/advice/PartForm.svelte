<script lang="ts">
  import { labelOf, choicesOf } from './partWords.ts';

  /** Everything that is stated of a part, a field a figure; an empty one is not stated. */
  let { cells = $bindable(), columns }: { cells: Record<string, string>; columns: string[] } = $props();
  const groups = $derived(Object.entries(Object.groupBy(columns, (column) => (column.includes('.') ? column.split('.')[0] : 'itself'))));
  const titles: Record<string, string> = {
    itself: 'The part', processor: 'Processor', builtIn: 'Built-in graphics, if any', unit: 'Graphics unit', engine: 'Media engine, if any'
  };
</script>

<form class="grid max-w-5xl items-start gap-x-10 gap-y-4 md:grid-cols-2" onsubmit={(event) => event.preventDefault()} data-testid="part">
  <fieldset class="grid gap-1">
    <legend class="mb-1 font-semibold">What it is</legend>
    {@render field('name')}
    {@render field('price')}
    {@render field('pricedOn')}
  </fieldset>
  {#each groups as [group, members] (group)}
    <fieldset class="grid gap-1">
      <legend class="mb-1 font-semibold">{titles[group]}</legend>
      {#each members ?? [] as column (column)}{@render field(column)}{/each}
    </fieldset>
  {/each}
</form>

{#snippet field(column: string)}
  {@const choices = choicesOf(column)}
  <label class="grid grid-cols-[11rem_1fr] items-center gap-3">{labelOf(column, cells.kind)}
    {#if choices}
      <select class="select select-sm w-full" value={cells[column] ?? ''} onchange={(event) => (cells[column] = event.currentTarget.value)}>
        {#each Object.entries(choices) as [value, words] (value)}<option {value}>{words}</option>{/each}
      </select>
    {:else}
      <input class="input input-sm w-full" type="text" placeholder={column === 'pricedOn' ? '2026-11-27' : undefined} autocomplete="off" value={cells[column] ?? ''} oninput={(event) => (cells[column] = event.currentTarget.value)} />
    {/if}
  </label>
{/snippet}
