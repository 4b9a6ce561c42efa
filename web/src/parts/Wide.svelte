<script lang="ts">
  import type { Snippet } from "svelte";

  /** Something wider than a phone: it scrolls by itself, by keys too where there is something to scroll. */
  const { label, children }: { label: string; children: Snippet } = $props();
  let box = $state<HTMLElement>();
  let width = $state(0);
  let inside = $state(0);
  const over = $derived(box !== undefined && width > 0 && inside > width);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="wide"
  role="group"
  aria-label={label}
  tabindex={over ? 0 : undefined}
  bind:this={box}
  bind:clientWidth={width}
>
  <div class="inside" bind:offsetWidth={inside}>{@render children()}</div>
</div>

<style>
  .wide {
    /* What is hidden from the eye inside stays inside. */
    position: relative;
    overflow-x: auto;
  }
  .inside {
    width: max-content;
    min-width: 100%;
  }
</style>
