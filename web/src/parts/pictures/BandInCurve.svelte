<script lang="ts">
  import type { BandFigures, InCurve } from "../../api/schema";
  import { kerfMiddle } from "../../drawings/curve";
  import { shop } from "../../lib/shop.svelte";

  interface Props {
    band: BandFigures;
    /** Radius asked, and the band's own tightest and comfortable, mm. */
    radius_mm: number;
    tight_mm: number;
    comfortable_mm: number;
    /** How it leans in the curve, from the core. */
    place: InCurve;
  }
  const { band, radius_mm, tight_mm, comfortable_mm, place }: Props = $props();

  const W = 560;
  const H = 120;
  const k = $derived(Math.min(24, (W - 120) / band.width_mm));
  const y0 = H / 2 + 12;
  const steps = Array.from({ length: 41 }, (_, i) => i / 40);
  /** A wall of the kerf, from ahead of the teeth to behind the back edge. */
  function wall(side: number): string {
    return steps
      .map((t, i) => {
        const s = (t * 1.5 - 0.2) * band.width_mm;
        const y = s < 0 ? 0 : kerfMiddle(s, radius_mm);
        return `${i === 0 ? "M" : "L"}${(60 + s * k).toFixed(1)} ${(y0 - (y + (side * band.kerf_mm) / 2) * k).toFixed(1)}`;
      })
      .join("");
  }
  const back = $derived(place.lean_rad * band.width_mm);
  const body = $derived.by(() => {
    const half = (band.thickness_mm / 2) * k;
    const [x1, y1, x2, y2] = [60, y0, 60 + band.width_mm * k, y0 - back * k];
    return `M${x1} ${y1 - half}L${x2} ${y2 - half}V${y2 + half}L${x1} ${y1 + half}Z`;
  });
  const words = $derived(
    `Turns ${shop.say(Math.round(tight_mm), "length")} at the tightest, ${shop.say(Math.round(comfortable_mm), "length")} in comfort; the job asks ${shop.say(radius_mm, "length")}.`,
  );
</script>

<figure>
  <svg
    viewBox="0 0 {W} {H}"
    role="img"
    aria-label="From above, the band leaning in its kerf. {words}"
  >
    <path class="kerf" d={wall(1)} />
    <path class="kerf" d={wall(-1)} />
    <path class="body" d={body} />
    <path class="teeth" d="M60 {y0 - (band.kerf_mm / 2) * k}v{band.kerf_mm * k}" />
    <text x="60" y={H - 4}>teeth</text>
    <text x={60 + band.width_mm * k} y={H - 4} text-anchor="end">back edge</text>
  </svg>
  <figcaption class="soft">From above, to one scale. {words}</figcaption>
</figure>

<style>
  svg {
    width: 100%;
  }
  .kerf {
    fill: none;
    stroke: var(--wood-grain);
    stroke-width: 2.5;
  }
  .body {
    fill: var(--jade);
  }
  .teeth {
    stroke: var(--brass);
    stroke-width: 4;
  }
  text {
    fill: var(--ink-soft);
    font-size: 15px;
  }
</style>
