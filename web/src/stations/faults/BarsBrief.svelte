<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import { scaleLinear } from "d3-scale";

  import type { CauseNow } from "../../api/schema";

  /** The three causes in three lines, above a check on a narrow screen, so that they are seen to move. */
  const { causes }: { causes: readonly CauseNow[] } = $props();
  const x = scaleLinear([0, 1], [0, 100]);
</script>

<ol aria-hidden="true">
  {#each causes as cause (cause.key)}
    <li>
      <span class="name">{cause.name}</span>
      <span class="mono">{shop.chance(cause.chance)}</span>
      <svg viewBox="0 0 100 4" preserveAspectRatio="none">
        <rect class="track" width="100" height="4" />
        <rect class="bar" data-harm={cause.harm} width={x(cause.chance)} height="4" />
      </svg>
    </li>
  {/each}
</ol>

<style>
  ol {
    display: none;
    padding-bottom: var(--s3);
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    line-height: 1.3;
  }
  .name {
    font-weight: 600;
  }
  svg {
    grid-column: 1 / -1;
    width: 100%;
    height: 0.4rem;
  }
  .track {
    fill: var(--hairline);
    opacity: 0.5;
  }
  .bar {
    fill: var(--jade);
    transition: width var(--slow);
  }
  .bar[data-harm="stop"] {
    fill: var(--vermilion);
  }
  @media (max-width: 56.25em) {
    ol {
      display: grid;
      gap: var(--s2);
    }
  }
</style>
