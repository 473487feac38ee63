<script lang="ts">
  import { numberOf } from './numbers';

  /** A number with its limits. A value out of them is reported beside the field and not taken; an empty field is not 0, and is allowed only where
   * `onempty` says what it means. */
  let {
    value,
    min,
    max = null,
    whole = false,
    disabled = false,
    class: look = 'input-sm w-24',
    label = undefined,
    placeholder = undefined,
    onempty = undefined,
    onchange
  }: {
    value: number | null;
    min: number;
    max?: number | null;
    whole?: boolean;
    disabled?: boolean;
    class?: string;
    label?: string;
    placeholder?: string;
    onempty?: () => void;
    onchange: (value: number) => void;
  } = $props();

  let typed = $state<string | null>(null);
  const problem = $derived(typed === null ? null : numberOf(typed, { min, max, whole }).problem);
  const stays = $derived(value === null ? 'It stays empty.' : `It stays ${value}.`);
  const told = $props.id();

  // Another value comes in from elsewhere, as by undoing: what was typed is over.
  $effect(() => {
    void value;
    typed = null;
  });

  function take(text: string) {
    if (onempty && text.trim() === '') {
      typed = null;
      onempty();
      return;
    }
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
    aria-label={label}
    {placeholder}
    aria-invalid={problem ? 'true' : undefined}
    aria-describedby={problem ? told : undefined}
    {disabled}
    value={typed ?? value ?? ''}
    onchange={(event) => take(event.currentTarget.value)}
  />
  {#if problem}<span id={told} role="alert" class="max-w-44 text-xs text-error">{problem} {stays}</span>{/if}
</span>
