<script lang="ts">
  import { clockPoint, gapPx, leanDeg, turnArc, turnHead } from "../../../drawings/saw/truing";
  import { shop } from "../../../lib/shop.svelte";

  interface Props {
    axis: "tilt" | "toe" | "offset";
    wheel: string;
    horizontal: boolean;
    /** The gap as it is reckoned now, mm. */
    gap_mm: number;
    /** The next turn, clockwise positive; 0 when there is none. */
    turns: number;
    turn_words: string;
    /** Where the bolt stands, seen from the doors; null: shims. */
    oclock: number | null;
  }
  const { axis, wheel, horizontal, gap_mm, turns, turn_words, oclock }: Props = $props();

  const TALL = 84;
  const THICK = 14;
  const CLOCK = 62;
  const gap = $derived(gapPx(gap_mm));
  /** A wheel seen edge-on, the straightedge to its right: leaning about its foot, or set back. */
  const place = $derived(
    axis === "offset" ? `translate(${-gap} 0)` : `rotate(${-leanDeg(gap, TALL)} 0 ${TALL})`,
  );
  /** Seen from the side; a mill's wheels, and any wheel that toes, are seen from above. */
  const flat = $derived((axis === "toe") !== horizontal);
  const ends = $derived(
    axis === "offset"
      ? ""
      : axis === "tilt"
        ? horizontal
          ? "outer edge"
          : "top edge"
        : horizontal
          ? "top edge"
          : "column side",
  );
  const bolt = $derived(oclock === null ? null : clockPoint(oclock, CLOCK * 0.6));
</script>

<svg
  viewBox="0 0 520 250"
  role="img"
  aria-label="{wheel} wheel, gap {shop.say(gap_mm, 'thin')}; {turn_words || 'nothing to turn'}"
>
  <g transform="translate(150 24) {flat ? 'rotate(90 0 94)' : ''}">
    <g transform={place}>
      <rect class="wheel" x={-THICK} y="0" width={THICK} height={TALL} />
      <path class="axle" d="M{-THICK - 26} {TALL / 2}h26" />
    </g>
    <rect class="wheel other" x={-THICK} y={TALL + 20} width={THICK} height={TALL} />
    <path class="axle other" d="M{-THICK - 26} {TALL * 1.5 + 20}h26" />
    <path class="edge" d="M4 -10V{TALL * 2 + 30}" />
  </g>
  <g class="words">
    <text x="176" y="34" class="mono">{shop.say(Math.abs(gap_mm), "thin")}</text>
    <text x="176" y="56">{gap_mm < 0 ? "touches, the other end away" : "gap"}</text>
    {#if ends}<text x="176" y="78">{ends}</text>{/if}
    <text class="soft" x="8" y="244">gap drawn larger than it is</text>
  </g>
  {#if bolt}
    <g transform="translate(420 96)">
      <circle class="face" r={CLOCK} />
      {#each [12, 3, 6, 9] as hour (hour)}
        {@const at = clockPoint(hour, CLOCK + 13)}
        <text x={at.x} y={at.y + 6} text-anchor="middle" class="soft">{hour}</text>
      {/each}
      <circle class="shaft" r="9" />
      <g transform="translate({bolt.x} {bolt.y})">
        <circle class="bolt" r="9" />
        <path class="turn" d="{turnArc(turns, 18)}{turnHead(turns, 18, 9)}" />
      </g>
    </g>
    <text x="420" y="200" text-anchor="middle">{turn_words}</text>
    <text class="soft" x="420" y="222" text-anchor="middle">seen from the doors</text>
  {/if}
</svg>

<style>
  svg {
    width: 100%;
    max-width: 36rem;
    display: block;
  }
  .wheel {
    fill: var(--jade-pale);
    stroke: var(--jade);
    stroke-width: 1.5;
  }
  .other {
    fill: none;
    stroke: var(--steel);
  }
  .axle {
    stroke: var(--steel);
    stroke-width: 5;
  }
  .edge {
    stroke: var(--brass);
    stroke-width: 5;
  }
  .face {
    fill: var(--paper);
    stroke: var(--hairline);
  }
  .shaft {
    fill: var(--steel);
  }
  .bolt {
    fill: var(--brass);
    stroke: var(--ink);
  }
  .turn {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  text {
    fill: var(--ink);
    font-size: 17px;
  }
  .soft {
    fill: var(--ink-soft);
  }
  .mono {
    font-family: var(--mono);
    font-weight: 700;
    font-size: 20px;
  }
</style>
