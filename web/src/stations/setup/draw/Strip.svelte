<script lang="ts">
  import type { BandFigures } from "../../../api/schema";
  import { edge, path } from "../../../drawings/tooth";

  interface Props {
    band: BandFigures;
  }
  const { band }: Props = $props();
  const W = 520;
  /** Six teeth across the page, so that pitch and gullet read. */
  const scale = $derived(W / (band.pitch_mm * 6));
  const tooth = $derived({
    form: band.form,
    pitch: band.pitch_mm * scale,
    depth: band.gullet_depth_mm * scale,
    hookDeg: band.hook_deg,
  });
  const width = $derived(Math.min(band.width_mm * scale, 150));
  const outline = $derived(
    path(edge(tooth, W + tooth.pitch), (p) => [p.along, 40 + p.into]) +
      `L${W + tooth.pitch} ${40 + width}L0 ${40 + width}Z`,
  );
  const weld = $derived(tooth.pitch * 3.6);
</script>

<svg
  class="drawing"
  viewBox="0 0 {W} 230"
  role="img"
  aria-label="The band's teeth to scale: where to look for cracks, the weld, and which way it runs"
>
  <path class="band" d={outline} />
  <path class="weld" d="M{weld} {42 + tooth.depth}V{40 + width}" />
  <path class="crack" d="M{tooth.pitch * 1.9} {40 + tooth.depth}l-4 10 6 8 -5 10" />
  <path class="say" d="M40 24h120m-14 -7l14 7 -14 7" />
  <text x="172" y="30">runs this way, teeth first</text>
  <path
    class="say"
    d="M{tooth.pitch * 1.9 + 4} {52 + tooth.depth}L{tooth.pitch * 1.4} {60 + width}"
  />
  <text x="10" y={80 + width}>cracks start in the gullet</text>
  <path class="say" d="M{weld} {44 + width}v14" />
  <text x={weld - 30} y={80 + width}>weld: flush, both faces</text>
</svg>

<style>
  .band {
    fill: var(--jade);
  }
  .weld {
    stroke: var(--ground);
    stroke-width: 2;
    stroke-dasharray: 5 4;
  }
  .crack {
    fill: none;
    stroke: var(--vermilion);
    stroke-width: 2.5;
  }
  .say {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.3;
  }
</style>
