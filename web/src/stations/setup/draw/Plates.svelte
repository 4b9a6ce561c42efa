<script lang="ts">
  import type { GuideCard } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { fixed } from "../../../lib/figures/units";

  interface Props {
    show: "guides_back" | "guard" | "table" | "table_pin" | "trial" | "drift";
    guides: GuideCard;
    /** The band lies across the work: guides stand on two arms, not one over the other. */
    horizontal?: boolean;
    height_mm: number;
    /** Swing off the line, mm over a run; drawn eight times too steep to be seen. */
    swing?: { offset_mm: number; run_mm: number } | null;
  }
  const { show, guides, horizontal = false, height_mm, swing = null }: Props = $props();

  const W = 520;
  const work = $derived(150);
  const gap = $derived(Math.max((guides.guard_gap_mm / height_mm) * work, 8));
  const armGap = $derived(Math.min(Math.max((guides.guard_gap_mm / height_mm) * 180, 10), 60));
  const angle = $derived(
    swing && swing.run_mm > 0 ? (Math.atan(swing.offset_mm / swing.run_mm) * 180) / Math.PI : 0,
  );
</script>

<svg class="drawing" viewBox="0 0 {W} 240" role="img" aria-label="What this step sets, drawn">
  {#if horizontal && show === "guides_back"}
    <rect class="band" x="20" y="116" width="480" height="8" />
    {#each [110, 330] as x (x)}
      <rect class="guide" {x} y="40" width="34" height="50" />
      <rect class="guide" {x} y="150" width="34" height="50" />
      <path class="say" d="M{x + 50} 96v-40m-6 10l6 -10 6 10M{x + 50} 144v40m-6 -10l6 10 6 -10" />
    {/each}
    <text x="66" y="226">movable arm: apart</text>
    <text x="290" y="226">fixed arm: apart</text>
  {:else if horizontal && show === "guard"}
    <rect class="table" x="60" y="214" width="400" height="12" />
    <circle class="work" cx="290" cy="124" r="90" />
    <rect class="band" x="20" y="118" width="480" height="12" />
    <rect class="guide" x="404" y="60" width="30" height="90" />
    <rect class="guide" x={200 - armGap - 30} y="60" width="30" height="90" />
    <path class="say" d="M{200 - armGap} 172H200m-{armGap} -8v16m{armGap} -16v16" />
    <text class="mono" x="20" y="182">{shop.say(guides.guard_gap_mm, "length")}</text>
    <text x="20" y="204">clear of the work</text>
    <text x="120" y="48">movable arm</text>
    <text x="392" y="48">fixed arm</text>
    <text x="254" y="108">{shop.say(height_mm, "length")} in the cut</text>
  {:else if horizontal && show === "table"}
    <rect class="table" x="40" y="190" width="440" height="14" />
    <rect class="band" x="20" y="70" width="480" height="10" />
    {#each [80, 430] as x (x)}
      <path class="say" d="M{x} 82V188m-6 -10l6 10 6 -10M{x - 6} 92l6 -10 6 10" />
    {/each}
    <text x="176" y="130">the same at both ends,</text>
    <text x="176" y="152">and no light under the square</text>
    <text x="44" y="228">bed</text>
    <text x="24" y="58">band</text>
  {:else if show === "guides_back"}
    <rect class="band" x="250" y="10" width="8" height="220" />
    {#each [40, 170] as y (y)}
      <rect class="guide" x="150" {y} width="70" height="34" />
      <rect class="guide" x="290" {y} width="70" height="34" />
      <path class="say" d="M214 {y + 50}h-40m10 -6l-10 6 10 6M296 {y + 50}h40m-10 -6l10 6 -10 6" />
    {/each}
    <text x="380" y="62">upper: apart</text>
    <text x="380" y="192">lower: apart</text>
  {:else if show === "guard"}
    <rect class="work" x="60" y={210 - work} width="180" height={work} />
    <rect class="table" x="30" y="210" width="330" height="12" />
    <rect class="band" x="248" y="0" width="12" height="240" />
    <rect class="guide" x="232" y="0" width="44" height={210 - work - gap} />
    <path class="say" d="M300 {210 - work - gap}V210m-8 0h16M292 {210 - work - gap}h16" />
    <text class="mono" x="314" y={210 - work / 2}>{shop.say(guides.guard_height_mm, "length")}</text
    >
    <text x="314" y={232 - work / 2}>above the table</text>
    <text x="66" y={204 - work - gap / 2}>{shop.say(guides.guard_gap_mm, "length")} clear</text>
    <text x="100" y={210 - work / 2}>{shop.say(height_mm, "length")} high</text>
  {:else if show === "table"}
    <rect class="table" x="40" y="190" width="240" height="14" />
    <rect class="band" x="190" y="10" width="10" height="225" />
    <path class="square" d="M204 188V40h14V174h90v14z" />
    <text x="236" y="110">no light between</text>
    <rect class="table" x="370" y="60" width="10" height="150" />
    <rect class="fence" x="400" y="60" width="14" height="150" />
    <text x="424" y="120">fence square</text>
    <text x="424" y="142">to the table</text>
  {:else if show === "table_pin"}
    <rect class="table" x="60" y="60" width="400" height="130" rx="4" />
    <path class="slot" d="M60 125H290" />
    <rect class="band" x="282" y="122" width="16" height="6" />
    <circle class="pin" cx="84" cy="125" r="13" />
    <path class="say" d="M84 108L120 40" />
    <text x="126" y="42">pin in, both halves level</text>
    <text x="306" y="131">band</text>
  {:else if show === "drift"}
    <rect class="work" x="20" y="60" width="330" height="130" />
    <path class="line" d="M20 125H400" />
    <path class="cutline" d="M20 125L350 {125 + Math.max(-60, Math.min(60, angle * 8 * 5.7))}" />
    <rect class="band" x="350" y="118" width="10" height="14" />
    <text x="24" y="52">scribed line, and where it went (drawn eight times too steep)</text>
    <text class="mono" x="370" y="104">{angle === 0 ? "" : `${fixed(angle, 2)}°`}</text>
    <path class="say" d="M20 206h330m-330 -6v12m330 -12v12" />
    <text x="150" y="230">the run</text>
  {:else}
    <path class="work" d="M70 70h300l80 50h-300z" />
    <path class="face" d="M70 70v70l80 50v-70zM150 120h300v70h-300z" />
    {#each [[150, 130], [450, 130], [150, 186], [450, 186]] as [x, y] (`${x}-${y}`)}
      <circle class="pin" cx={x} cy={y} r="9" />
    {/each}
    <text x="150" y="222">four corners: thickest less thinnest</text>
  {/if}
</svg>

<style>
  .band {
    fill: var(--jade);
  }
  .guide,
  .fence {
    fill: var(--ink-soft);
  }
  .work {
    fill: var(--wood);
  }
  .face {
    fill: var(--wood-sawn);
    stroke: var(--ground);
  }
  .table {
    fill: var(--steel);
  }
  .square {
    fill: var(--brass);
  }
  .pin {
    fill: var(--brass);
    stroke: var(--ink);
  }
  .slot {
    stroke: var(--ground);
    stroke-width: 5;
  }
  .say {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.3;
  }
  .line {
    stroke: var(--ink);
    stroke-dasharray: 7 5;
  }
  .cutline {
    stroke: var(--jade);
    stroke-width: 3;
  }
  .mono {
    font-family: var(--mono);
    font-weight: 700;
    font-size: 22px;
  }
</style>
