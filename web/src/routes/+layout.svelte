<script lang="ts">
  import '../app.css';
  import { onMount } from 'svelte';
  import { live } from '#lib/live.svelte.ts';
  import TopBar from '#lib/TopBar.svelte';
  import JudgingBar from '#lib/JudgingBar.svelte';
  import MakingBar from '#lib/MakingBar.svelte';

  let { children } = $props();
  onMount(() => void live.connect());
</script>

<div class="page flex h-dvh flex-col bg-base-100 text-base-content">
  <a href="#content" class="btn btn-primary btn-sm absolute top-1 left-1 z-50 not-focus:sr-only">Skip to the content</a>
  <TopBar />
  {#if !live.connected}
    <p role="status" class="bg-warning px-4 py-1 text-sm text-warning-content">
      The server does not answer. Finished runs are saved. This page continues when the server is back.
    </p>
  {/if}
  <MakingBar />
  <JudgingBar />
  <main id="content" tabindex="-1" class="min-h-0 flex-1 overflow-auto">{@render children()}</main>
</div>
