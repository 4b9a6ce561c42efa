<script lang="ts">
  import type { Snippet } from "svelte";

  interface Props {
    /** What is inside, in a word or two. */
    name: string;
    /** What it comes to, said while it is closed. */
    gist?: string;
    /** Open, it takes the whole line of its neighbours. */
    open?: boolean;
    children: Snippet;
  }
  let { name, gist = "", open = $bindable(false), children }: Props = $props();
</script>

<details class="fold" bind:open>
  <summary>
    <p><span class="name" data-more={gist !== ""}>{name}</span> {gist}</p>
  </summary>
  {#if open}
    <section aria-label={name}>{@render children()}</section>
  {/if}
</details>

<style>
  .fold {
    border-top: var(--hair) solid var(--hairline);
    min-width: 0;
  }
  .fold[open] {
    grid-column: 1 / -1;
    border-top: var(--rule) solid var(--ink);
    padding-bottom: var(--s4);
  }
  summary {
    font-weight: 400;
    padding: var(--s2) 0;
  }
  .name {
    font-weight: 650;
  }
  .name[data-more="true"]::after {
    content: ":";
  }
</style>
