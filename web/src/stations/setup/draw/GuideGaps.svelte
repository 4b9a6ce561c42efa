<script lang="ts">
  import type { BandFigures, GuideCard } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";

  interface Props {
    band: BandFigures;
    guides: GuideCard;
    kind: string;
  }
  const { band, guides, kind }: Props = $props();

  const W = 520;
  const TIMES = 20;
  /** At twenty times, what of the body's width still goes on the page. */
  const SHOWN_MM = 13;
  const y = 130;
  const thick = $derived(band.thickness_mm * TIMES);
  const set = $derived(band.set_per_side_mm * TIMES);
  const gullet = $derived(Math.min(band.gullet_depth_mm * TIMES, 90));
  const body = $derived(Math.min(band.body_width_mm, SHOWN_MM) * TIMES);
  const broken = $derived(band.body_width_mm > SHOWN_MM);
  const side = $derived((guides.side_gap_mm ?? 0) * TIMES);
  const thrust = $derived(guides.thrust_gap_mm * TIMES);
  const x0 = 40;
  const back = $derived(x0 + gullet + body);
  const round = $derived(kind === "rolling");
</script>

<svg
  class="drawing"
  viewBox="0 0 {W} 260"
  role="img"
  aria-label="Looking down on the band between its guides, twenty times life size"
>
  <path
    class="band"
    d="M{x0} {y - thick / 2 - set}L{x0 + gullet} {y - thick / 2}H{back}V{y + thick / 2}H{x0 +
      gullet}L{x0} {y + thick / 2 + set}Z"
  />
  {#if broken}<path class="cut" d="M{back - 34} {y - 30}l8 20 -14 20 14 20 -8 20" />{/if}
  {#if guides.side_gap_mm !== null}
    {#each [-1, 1] as way (way)}
      <rect
        class="guide"
        x={x0 + gullet + 14}
        y={way < 0 ? y - thick / 2 - side - 56 : y + thick / 2 + side}
        width="96"
        height="56"
        rx={round ? 28 : 2}
      />
    {/each}
    <path class="dim" d="M{x0 + gullet} {y + 92}h14m-14 -6v12m14 -12v12" />
    <text x={x0 + gullet - 4} y={y + 118}>just behind the gullets</text>
  {/if}
  <rect class="guide" x={back + thrust} y={y - 44} width="40" height="88" rx={round ? 18 : 2} />
  <path class="dim" d="M{back} {y - 54}h{Math.max(thrust, 1)}m0 -6v12M{back} {y - 60}v12" />
  <text class="mono" x={back + 6} y={y - 64}>{shop.say(guides.thrust_gap_mm, "thin")}</text>
  <text x={back + 52} y={y + 6}>thrust</text>
  {#if guides.side_gap_mm !== null}
    <text class="mono" x={x0 + gullet + 122} y={y - thick / 2 - 34}
      >{guides.side_gap_mm === 0 ? "touching" : shop.say(guides.side_gap_mm, "thin")}</text
    >
    <text x={x0 + gullet + 122} y={y - thick / 2 - 14}>each side</text>
  {/if}
  <text x={x0} y={y - thick / 2 - set - 14}>teeth</text>
  <text x={W - 8} y="20" text-anchor="end">× {TIMES}</text>
</svg>

<style>
  .band {
    fill: var(--jade);
  }
  .guide {
    fill: var(--wood-sawn);
    stroke: var(--ink);
  }
  .cut {
    fill: none;
    stroke: var(--ground);
    stroke-width: 6;
  }
  .dim {
    fill: none;
    stroke: var(--ink);
  }
  .mono {
    font-family: var(--mono);
    font-weight: 700;
  }
</style>
