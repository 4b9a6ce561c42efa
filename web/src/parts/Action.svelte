<script lang="ts">
  import type { Snippet } from "svelte";

  interface Props {
    children: Snippet;
    /** The one next step of a screen is `main`; all else is quiet. */
    main?: boolean;
    href?: string;
    disabled?: boolean;
    /** Whether what it opens is open; without it, it opens nothing in place. */
    expanded?: boolean;
    type?: "button" | "submit";
    onclick?: () => void;
  }
  const {
    children,
    main = false,
    href,
    disabled = false,
    expanded,
    type = "button",
    onclick,
  }: Props = $props();
</script>

{#if href}
  <a class="action" {href} data-main={main} {onclick}>{@render children()}</a>
{:else}
  <button
    class="action"
    {type}
    {disabled}
    data-main={main}
    data-opens={expanded !== undefined}
    aria-expanded={expanded}
    {onclick}>{@render children()}</button
  >
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
  .action[data-opens="true"]::after {
    content: "";
    width: 0.45em;
    height: 0.45em;
    margin-left: 0.6em;
    border: solid currentcolor;
    border-width: 0 2px 2px 0;
    transform: translateY(-0.15em) rotate(45deg);
  }
  .action[aria-expanded="true"]::after {
    transform: translateY(0.1em) rotate(225deg);
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
