<script lang="ts">
  import type { BandPosition } from "../../../api/schema";
  import { facePath, crownHeight } from "../../../drawings/saw/tyre";
  import { shop } from "../../../lib/shop.svelte";

  interface Props {
    band_width_mm: number;
    thickness_mm: number;
    tyre: string;
    /** Where it should ride, from the core. */
    position: BandPosition;
  }
  const { band_width_mm, thickness_mm, tyre, position }: Props = $props();

  const W = 520;
  const GROW = 5;
  const width = $derived(position.tyre_width_mm);
  const crowned = $derived(tyre === "crowned");
  const scale = $derived(360 / Math.max(width, band_width_mm));
  const start = $derived(position.toothed_edge_mm);
  const middle = $derived(start + band_width_mm / 2);
  const lift = $derived(crownHeight(middle, width, crowned) * scale * GROW);
  const x0 = 90;
  const y0 = 120;
</script>

<svg
  class="drawing"
  viewBox="0 0 {W} 210"
  role="img"
  aria-label="The {tyre} tyre cut across with the band on it: {position.words}"
>
  <g transform="translate({x0} {y0})">
    <path class="tyre" d="{facePath(width, crowned, scale, GROW)}L{width * scale} 46L0 46Z" />
    <rect
      class="band"
      x={start * scale}
      y={-lift - Math.max(thickness_mm * scale, 5) - 1}
      width={band_width_mm * scale}
      height={Math.max(thickness_mm * scale, 5)}
    />
    <path
      class="teeth"
      d="M{start * scale} {-lift - 1}l-11 -3 11 -{Math.max(thickness_mm * scale, 5)}z"
    />
    {#if crowned}<path class="dim" d="M{(width / 2) * scale} 46V{-lift - 40}" />{/if}
    <path class="dim" d="M0 66h{width * scale}M0 60v12M{width * scale} 60v12" />
    <text x={(width / 2) * scale} y="88" text-anchor="middle"
      >tyre {position.tyre_width_known ? shop.say(width, "length") : "width not recorded"}</text
    >
    <text x={start * scale} y={-lift - 44}>band {shop.say(band_width_mm, "length")}</text>
  </g>
  <text x="8" y={y0 + 6}>front</text>
  <text x={W - 56} y={y0 + 6}>back</text>
</svg>

<style>
  .tyre {
    fill: var(--ink-soft);
  }
  .band,
  .teeth {
    fill: var(--jade);
  }
  .dim {
    fill: none;
    stroke: var(--ink);
    stroke-dasharray: none;
  }
</style>
