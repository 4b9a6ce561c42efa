<script lang="ts">
  import { shop } from "../../../lib/shop.svelte";
  import type { Snippet } from "svelte";

  import { enterGoesOn } from "../../../lib/figures/enter";
  import type { Said } from "../../../lib/figures/units";

  interface Props {
    /** What it finds out, for those who hear the page. */
    label: string;
    /** Why the last question was refused; '' when it was not. */
    fault?: Said;
    /** The fields and the question, in a row. */
    children: Snippet;
    /** What was found. */
    found?: Snippet;
  }
  const { label, fault = "", children, found }: Props = $props();

  const ask = enterGoesOn((line) => line.querySelector<HTMLElement>("button.action")?.click());
</script>

<section aria-label={label}>
  <div class="line" {@attach ask}>{@render children()}</div>
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if found}<div aria-live="polite">{@render found()}</div>{/if}
</section>

<style>
  section {
    padding-top: var(--s3);
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
  }
</style>
