<script lang="ts">
  import type { Schemas } from '../api/client';
  import { percent } from '../words';
  import { conditionsInWords } from './conditions';

  let { conditions }: { conditions: Schemas['Conditions'] } = $props();
  const effects = $derived(Object.entries(conditions.effects ?? {}));
  const footage = $derived(Object.entries(conditions.footage ?? {}));
</script>

<div class="mt-4 grid gap-x-10 gap-y-3 text-sm lg:grid-cols-[auto_1fr]" data-testid="found-conditions">
  <section>
    <h2 class="mb-1 font-semibold">The machine when the run started</h2>
    <dl class="grid grid-cols-[auto_auto] justify-start gap-x-4">
      {#each conditionsInWords(conditions) as [name, value], at (at)}
        <dt class="quiet">{name}</dt>
        <dd>{value}</dd>
      {/each}
    </dl>
  </section>
  {#if footage.length}
    <section>
      <h2 class="mb-1 font-semibold">Where each clip was stored and decoded</h2>
      <table>
        <thead class="quiet text-left">
          <tr>{#each ['clip', 'drive', 'in the file cache before', 'decoded on'] as head (head)}<th scope="col" class="pr-6 font-normal">{head}</th>{/each}</tr>
        </thead>
        <tbody>
          {#each footage as [clip, state] (clip)}
            <tr class="align-baseline [&>td]:pr-6">
              <td>{clip}</td>
              <td>{state.drive ?? 'unknown'}{state.kind ? `, ${state.kind}` : ''}</td>
              <td class="figure">{state.cachedShare == null ? '' : percent(state.cachedShare)}</td>
              <td>{state.decodedOn}{#if state.refusal}<span class="block text-xs text-warning">{state.refusal}</span>{/if}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </section>
  {/if}
  {#if effects.length}
    <section>
      <h2 class="mb-1 font-semibold">Where each effect ran</h2>
      <ul>
        {#each effects as [effect, state] (effect)}
          <li>{effect}: {state.ranOn}{#if state.refusal}<span class="text-warning">, {state.refusal}</span>{/if}</li>
        {/each}
      </ul>
    </section>
  {/if}
</div>
