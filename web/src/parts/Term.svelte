<script lang="ts">
  import type { Snippet } from "svelte";

  /** A word that opens what it is, why it matters and how it is told. */
  const { key, children }: { key: string; children: Snippet } = $props();
</script>

<a href="#/help/{key}">{@render children()}</a>

<style>
  a {
    color: inherit;
    font-weight: inherit;
    text-decoration: underline dotted var(--ink-soft) 1px;
    text-underline-offset: 0.22em;
  }
  a:hover {
    text-decoration-color: var(--jade);
  }
</style>
