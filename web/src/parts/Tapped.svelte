<script lang="ts">
  import type { Snippet } from "svelte";

  import type { Explained } from "../api/schema";
  import Reasons from "./Reasons.svelte";

  interface Props {
    label: string;
    /** What it rests on; with it the figure can be tapped. */
    explained: Explained | undefined;
    alert?: boolean;
    children: Snippet;
  }
  const { label, explained, alert = false, children }: Props = $props();
  let open = $state(false);
</script>

{#if explained}
  <button type="button" data-alert={alert} aria-haspopup="dialog" onclick={() => (open = true)}
    >{label} {@render children()}</button
  >
{:else}
  <span data-alert={alert}>{label} {@render children()}</span>
{/if}
{#if open && explained}<Reasons {explained} onclose={() => (open = false)} />{/if}

<style>
  button {
    min-height: var(--touch);
    padding: 0;
    text-decoration: underline dotted var(--hairline) 2px;
    text-underline-offset: 0.22em;
  }
  [data-alert="true"] {
    color: var(--brass-text);
    font-weight: 650;
  }
</style>
