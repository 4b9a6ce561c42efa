<script lang="ts">
  import Wide from "../../parts/Wide.svelte";
  import type { FastenerAnswer, SlowZone } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { bowAt } from "./stock";

  interface Props {
    length_mm: number;
    thickness_mm: number;
    bow_mm: number;
    twist_mm: number;
    trim_mm: number;
    /** How long a piece is, and how many lie end to end; none where nothing is worked out. */
    piece_mm: number;
    sections: number;
    crosscut_mm: number;
    marks: readonly FastenerAnswer[];
    zones: readonly SlowZone[];
  }
  const {
    length_mm,
    thickness_mm,
    bow_mm,
    twist_mm,
    trim_mm,
    piece_mm,
    sections,
    crosscut_mm,
    marks,
    zones,
  }: Props = $props();

  const W = 860;
  const H = 56;
  /** Bow and depth are drawn so many times as large as length. */
  const across = $derived(H / thickness_mm);
  const x = (mm: number) => (mm / length_mm) * W;
  const off = (share: number) => bow_mm * across * bowAt(share);
  const STEPS = Array.from({ length: 25 }, (_, i) => i / 24);
  const face = $derived(STEPS.map((s) => `${(s * W).toFixed(1)} ${off(s).toFixed(1)}`).join("L"));
  const back = $derived(
    [...STEPS]
      .reverse()
      .map((s) => `${(s * W).toFixed(1)} ${(H + off(s)).toFixed(1)}`)
      .join("L"),
  );
  const room = $derived(Math.abs(bow_mm) * across);
  const words = $derived(
    `From above: ${shop.say(length_mm, "long")} long` +
      (bow_mm ? `, bowed ${shop.say(Math.abs(bow_mm), "thin")}, ` : "") +
      (bow_mm ? `${bow_mm > 0 ? "hollow" : "round"} on the marked face` : "") +
      (twist_mm ? `, twisted ${shop.say(twist_mm, "thin")}` : "") +
      `, ${marks.length} marks of metal`,
  );
</script>

<Wide label="Along its length">
  <svg
    viewBox="-20 {-50 - Math.max(0, -bow_mm * across)} {W + 40} {H + 90 + room}"
    role="img"
    aria-label={words}
  >
    {#each zones as zone (zone.from_mm)}
      <rect
        class="zone"
        x={x(zone.from_mm)}
        width={x(zone.to_mm) - x(zone.from_mm)}
        y={-8 + Math.min(0, bow_mm * across)}
        height={H + 16 + room}
      />
    {/each}
    <path class="billet" d="M{face}L{back}Z" />
    {#each Array.from({ length: sections }, (_, i) => trim_mm + i * (piece_mm + crosscut_mm)) as from, i (i)}
      <path class="section" d="M{x(from)} {H + room + 14}H{x(from + piece_mm)}" />
      <text class="mm" x={x(from + piece_mm / 2)} y={H + room + 32}
        >{shop.say(piece_mm, "long")}</text
      >
    {/each}
    {#each marks as mark, i (mark.id)}
      {@const at = mark.along_mm / length_mm}
      {@const deep = (mark.depth_mm ?? thickness_mm) * across}
      {@const from = mark.face === "face" ? off(at) : H + off(at)}
      <path
        class="metal"
        data-state={mark.state}
        data-sure={mark.depth_mm !== null}
        d="M{x(mark.along_mm)} {from}v{mark.face === 'face' ? deep : -deep}"
      />
      <text class="kind" x={x(mark.along_mm)} y={Math.min(0, bow_mm * across) - 12 - 16 * (i % 2)}
        >{mark.kind} {shop.number(mark.along_mm, "length")}</text
      >
    {/each}
    <text class="name" x="0" y={H / 2 + 5} dx="6">start</text>
  </svg>
</Wide>

<style>
  @media (max-width: 45em) {
    svg {
      min-width: 40rem;
    }
  }
  svg {
    width: 100%;
    max-height: 14rem;
  }
  .billet {
    fill: var(--wood);
    stroke: var(--ink);
  }
  .zone {
    fill: var(--vermilion-pale);
    stroke: var(--vermilion);
    stroke-dasharray: 4 3;
  }
  .section {
    stroke: var(--ink-soft);
    stroke-width: 2;
  }
  .metal {
    stroke: var(--vermilion);
    stroke-width: 4;
  }
  .metal[data-sure="false"] {
    stroke-dasharray: 5 4;
  }
  .metal:not([data-state="in"]) {
    stroke: var(--steel);
  }
  text {
    font: 18px var(--font);
    fill: var(--ink);
  }
  .mm,
  .kind {
    font-family: var(--mono);
    text-anchor: middle;
  }
  .name {
    fill: var(--ink-soft);
  }
</style>
