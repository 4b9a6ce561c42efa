<script lang="ts">
  import type { Snippet } from "svelte";

  interface Props {
    children: Snippet;
    /** The one next step of a screen is `main`; all else is quiet. */
    main?: boolean;
    href?: string;
    disabled?: boolean;
    type?: "button" | "submit";
    onclick?: () => void;
  }
  const {
    children,
    main = false,
    href,
    disabled = false,
    type = "button",
    onclick,
  }: Props = $props();
</script>

{#if href}
  <a class="action" {href} data-main={main} {onclick}>{@render children()}</a>
{:else}
  <button class="action" {type} {disabled} data-main={main} {onclick}>{@render children()}</button>
{/if}

<style>
  .action {
    display: inline-flex;
    align-items: center;
    justify-content: center;
    min-height: var(--touch);
    padding: var(--s2) var(--s3);
    background: none;
    color: var(--ink);
    border: 0;
    border-bottom: var(--rule) solid var(--hairline);
    font-weight: 600;
    text-decoration: none;
  }
  .action:hover:not(:disabled) {
    border-bottom-color: var(--ink);
  }
  .action[data-main="true"] {
    background: var(--jade);
    color: var(--on-jade);
    border-bottom-color: var(--jade);
    padding-inline: var(--s5);
    min-height: 3.25rem;
  }
  .action:disabled {
    color: var(--ink-soft);
    border-bottom-style: dashed;
    cursor: not-allowed;
  }
  .action[data-main="true"]:disabled {
    background: none;
    color: var(--ink-soft);
    border: var(--rule) dashed var(--hairline);
  }
</style>
