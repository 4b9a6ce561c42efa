<script lang="ts">
  import type { Snippet } from "svelte";

  /** The one thing to tap stays in reach of a thumb, however much is filled in above it. */
  const { children }: { children: Snippet } = $props();
</script>

<div class="bar">{@render children()}</div>

<style>
  .bar {
    position: sticky;
    bottom: 0;
    width: 100%;
    padding: var(--s2) 0;
    background: var(--ground);
    border-top: var(--hair) solid var(--hairline);
  }
  /* On a phone the ribbon lies along the bottom. */
  @media (max-width: 45em) {
    .bar {
      bottom: calc(var(--ribbon-height) + env(safe-area-inset-bottom));
      padding-bottom: var(--s5);
    }
  }
</style>
