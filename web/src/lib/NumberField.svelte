<script lang="ts">
  import { numberOf } from './numbers';

  /** A number with its limits. What is out of them is said beside the field and not taken; an empty field is not 0. */
  let {
    value,
    min,
    max = null,
    whole = false,
    disabled = false,
    class: look = 'input-sm w-24',
    onchange
  }: {
    value: number;
    min: number;
    max?: number | null;
    whole?: boolean;
    disabled?: boolean;
    class?: string;
    onchange: (value: number) => void;
  } = $props();

  let typed = $state<string | null>(null);
  const problem = $derived(typed === null ? null : numberOf(typed, { min, max, whole }).problem);
  const told = $props.id();

  // Another value comes in from elsewhere, as by undoing: what was typed is over.
  $effect(() => {
    void value;
    typed = null;
  });

  function take(text: string) {
    const read = numberOf(text, { min, max, whole });
    typed = read.problem ? text : null;
    if (read.problem === null) onchange(read.value);
  }
</script>

<span class="inline-grid">
  <input
    class="input figure text-right {look} {problem ? 'input-error' : ''}"
    type="text"
    inputmode="decimal"
    autocomplete="off"
    aria-invalid={problem ? 'true' : undefined}
    aria-describedby={problem ? told : undefined}
    {disabled}
    value={typed ?? value}
    onchange={(event) => take(event.currentTarget.value)}
  />
  {#if problem}<span id={told} role="alert" class="max-w-44 text-xs text-error">{problem} It stays {value}.</span>{/if}
</span>
