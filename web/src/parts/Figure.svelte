<script lang="ts">
  import type { Explained } from "../api/schema";
  import Reasons from "./Reasons.svelte";

  interface Props {
    /** What the figure is, above it. */
    label: string;
    value: string;
    unit?: string;
    /** A line under it. */
    note?: string;
    /** What it rests on; with it the figure can be tapped. */
    explained?: Explained | undefined;
    size?: "plain" | "large";
    alert?: boolean;
  }
  const {
    label,
    value,
    unit = "",
    note = "",
    explained,
    size = "plain",
    alert = false,
  }: Props = $props();
  let open = $state(false);
</script>

{#snippet inside()}
  <span class="label">{label}</span>
  <span class="line">
    <span class="value mono" data-size={size}>{value}</span>{#if unit}<span class="unit"
        >{unit}</span
      >{/if}
  </span>
  {#if note}<span class="note">{note}</span>{/if}
{/snippet}

{#if explained}
  <button
    type="button"
    class="figure"
    data-alert={alert}
    aria-haspopup="dialog"
    onclick={() => (open = true)}>{@render inside()}</button
  >
{:else}
  <div class="figure" data-alert={alert}>{@render inside()}</div>
{/if}
{#if open && explained}
  <Reasons {explained} onclose={() => (open = false)} />
{/if}

<style>
  .figure {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    text-align: left;
    min-height: var(--touch);
    padding: var(--s1) 0;
    background: none;
    border: 0;
  }
  button.figure .value {
    text-decoration: underline dotted var(--hairline) 2px;
    text-underline-offset: 0.22em;
  }
  button.figure:hover .value {
    text-decoration-color: var(--jade);
  }
  .label,
  .note {
    color: var(--ink-soft);
  }
  .line {
    display: flex;
    align-items: baseline;
    gap: var(--s1);
    white-space: nowrap;
  }
  .value {
    font-size: var(--figure);
    font-weight: 650;
    line-height: 1.25;
  }
  .value[data-size="large"] {
    font-size: var(--figure-large);
  }
  [data-alert="true"] .value {
    color: var(--brass-text);
  }
</style>
