<script lang="ts">
  import { scaleLinear } from "d3-scale";

  import type { Between } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";

  interface Props {
    /** Eight draws in ten lie between. */
    cost: Between;
    /** The middle of what is known. */
    at: number;
    /** The end of the axis, shared by the bands beside it. */
    most: number;
    best?: boolean;
  }
  const { cost, at, most, best = false }: Props = $props();
  let width = $state(280);
  const x = $derived(scaleLinear([0, Math.max(most, 1e-9)], [0, Math.max(width - 8, 40)]));
</script>

<div class="spread" bind:clientWidth={width}>
  <svg {width} height="18" role="img" aria-label="{shop.moneySpan(cost)} a piece">
    <g transform="translate(4 9)">
      <path class="axis" d="M0 6H{x(most)}" />
      <path class="range" data-best={best} d="M{x(cost.low)} 0H{x(cost.high)}" />
      <path class="at" d="M{x(at)} -6V6" />
    </g>
  </svg>
</div>

<style>
  .spread {
    flex: 1 1 9rem;
    min-width: 7rem;
  }
  svg {
    display: block;
    max-width: 100%;
  }
  .axis {
    stroke: var(--hairline);
  }
  .range {
    stroke: var(--steel);
    stroke-width: 7;
    stroke-linecap: round;
  }
  .range[data-best="true"] {
    stroke: var(--jade);
  }
  .at {
    stroke: var(--ink);
    stroke-width: 2.5;
  }
</style>
