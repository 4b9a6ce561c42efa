<script lang="ts">
  import { shop } from "../lib/shop.svelte";
  import type { Caution } from "../api/schema";

  interface Props {
    cautions: readonly Caution[];
    disclaimer: string;
    /** What always holds is folded into a line until asked for; printed in any case. */
    folded?: boolean;
  }
  const { cautions, disclaimer, folded = true }: Props = $props();
  const first = $derived(cautions.filter((c) => !c.standing));
  const standing = $derived(cautions.filter((c) => c.standing));
</script>

{#snippet list(items: readonly Caution[])}
  <ul>
    {#each items as caution (caution.key)}
      <li data-level={caution.level}>
        {#if caution.level === "stop"}
          <strong>Stop.</strong> {shop.words(caution.text)}
        {:else}
          {shop.words(caution.text)}
        {/if}
      </li>
    {/each}
  </ul>
{/snippet}

<section aria-label="Cautions">
  {@render list(first)}
  {#if folded && standing.length > 0}
    <details>
      <summary>And the {standing.length} that always hold at a saw</summary>
      {@render list(standing)}
    </details>
  {:else}
    {@render list(standing)}
  {/if}
  <p class="ours">{disclaimer}</p>
</section>

<style>
  li {
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  li[data-level="stop"] {
    border-top: var(--rule) solid var(--vermilion);
    background: var(--vermilion-pale);
    color: var(--ink);
    padding: var(--s3);
  }
  li[data-level="stop"] strong {
    color: var(--vermilion);
  }
  summary {
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  .ours {
    border-top: var(--rule) solid var(--ink);
    padding-top: var(--s2);
    margin-top: var(--s2);
    font-weight: 600;
  }
</style>
