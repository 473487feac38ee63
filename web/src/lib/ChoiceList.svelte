<script lang="ts">
  type Choice = { id: string; name: string; group?: string };

  /** Several of many, in the order in which they are chosen. */
  let { legend, choices, chosen = $bindable(), disabled = false }: { legend: string; choices: Choice[]; chosen: string[]; disabled?: boolean } = $props();
  let words = $state('');
  let list: HTMLUListElement;
  const shown = $derived(choices.filter((choice) => words.toLowerCase().split(/\s+/).every((word) => `${choice.name} ${choice.group ?? ''}`.toLowerCase().includes(word))));
  const groupOf = (at: number) => (shown[at].group && shown[at].group !== shown[at - 1]?.group ? shown[at].group : null);

  const toggle = (id: string) => (chosen = chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);

  function move(event: KeyboardEvent) {
    const by: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 };
    if (!(event.key in by)) return;
    event.preventDefault();
    const boxes = [...list.querySelectorAll('input')];
    const at = boxes.indexOf(event.target as HTMLInputElement);
    boxes[Math.max(0, Math.min(boxes.length - 1, at + by[event.key]))]?.focus();
  }

  /** Enter in the filter goes on to the list rather than sending the form. */
  function leaveFilter(event: KeyboardEvent) {
    if (event.key !== 'Enter' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    list.querySelector('input')?.focus();
  }
</script>

<fieldset class="grid min-w-0 content-start gap-1 text-sm" {disabled}>
  <legend class="mb-0.5">{legend} <span class="quiet">{chosen.length ? `${chosen.length} chosen` : 'none chosen'}</span></legend>
  <input class="input input-sm w-full" placeholder="filter…" aria-label="Show only {legend} with" bind:value={words} onkeydown={leaveFilter} />
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions: it only hears the arrow keys of the boxes within -->
  <ul bind:this={list} class="h-44 border border-base-300 {disabled ? 'overflow-hidden opacity-50' : 'overflow-auto'}" onkeydown={move}>
    {#each shown as choice, at (choice.id)}
      {#if groupOf(at)}<li class="quiet bg-base-200 px-2 text-xs font-semibold">{groupOf(at)}</li>{/if}
      <li>
        <label class="flex cursor-pointer items-center gap-2 px-2 py-0.5 hover:bg-base-200">
          <input class="checkbox checkbox-xs" type="checkbox" checked={chosen.includes(choice.id)} onchange={() => toggle(choice.id)} />
          <span class="truncate">{choice.name}</span>
          {#if chosen.includes(choice.id)}<span class="figure ml-auto text-xs" aria-label="chosen as number {chosen.indexOf(choice.id) + 1}">{chosen.indexOf(choice.id) + 1}</span>{/if}
        </label>
      </li>
    {:else}
      <li class="quiet px-2 py-1">No match.</li>
    {/each}
  </ul>
</fieldset>
