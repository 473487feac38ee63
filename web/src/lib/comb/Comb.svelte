<script lang="ts">
  import { drawComb } from './draw';
  import { inWords } from './teeth';

  let {
    teeth,
    frames = teeth.length,
    frameMs = 40,
    chosen,
    marked = [],
    class: look = ''
  }: { teeth: string; frames?: number; frameMs?: number; chosen?: number; marked?: number[]; class?: string } = $props();

  let canvas: HTMLCanvasElement;
  let size = $state(0);
  let theme = $state(0);

  // A picture that stands longer than this is a freeze.
  const shortestFreeze = $derived(Math.max(2, Math.floor(100 / frameMs)));

  $effect(() => {
    const resized = new ResizeObserver(() => size++);
    resized.observe(canvas);
    const themed = new MutationObserver(() => theme++);
    themed.observe(document.documentElement, { attributeFilter: ['data-theme'] });
    return () => {
      resized.disconnect();
      themed.disconnect();
    };
  });

  $effect(() => {
    void size;
    void theme;
    drawComb(canvas, teeth, { frames, chosen, shortestFreeze, marked });
  });
</script>

<span class="block {look}" role="img" aria-label={inWords(teeth)}><canvas bind:this={canvas} class="block h-full w-full"></canvas></span>
