<script lang="ts">
  import { theme } from '../theme.svelte';
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

  // A picture that stands longer than this is a freeze.
  const shortestFreeze = $derived(Math.max(2, Math.floor(100 / frameMs)));

  $effect(() => {
    const resized = new ResizeObserver(() => size++);
    resized.observe(canvas);
    return () => resized.disconnect();
  });

  $effect(() => {
    void size;
    void theme.dark;
    drawComb(canvas, teeth, { frames, chosen, shortestFreeze, marked });
  });
</script>

<span class="block {look}" role="img" aria-label={inWords(teeth)}><canvas bind:this={canvas} class="block h-full w-full"></canvas></span>
