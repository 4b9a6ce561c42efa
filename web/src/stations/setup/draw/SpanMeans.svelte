<script lang="ts">
  import type { TensionCard } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { significant } from "../../../lib/figures/units";
  import type { Means } from "../means";

  interface Props {
    tension: TensionCard;
    means: Means;
    /** Middle of the free span and half its length, px of the picture. */
    x: number;
    y: number;
    half: number;
    /** From the free strand to the line of the axles, px. */
    reach: number;
    /** The strain gauge's length at the picture's scale, px. */
    gauge: number;
    horizontal: boolean;
  }
  const { tension, means, x, y, half, reach, gauge, horizontal }: Props = $props();

  /** The figure to look for, and what it is of. */
  const figure = $derived.by((): readonly [string, string] => {
    if (means === "gauge")
      return [
        shop.say(tension.forms.gauge_stretch_um, "stretch"),
        `over ${shop.say(tension.gauge_length_mm, "length")}`,
      ];
    if (means === "pluck")
      return tension.note_Hz === null
        ? ["", "no free span known"]
        : [`${significant(tension.note_Hz, 3)} Hz`, tension.note_name ?? ""];
    if (means === "push")
      return tension.side_push
        ? [
            shop.say(tension.side_push.force_N, "force"),
            `for ${shop.say(tension.side_push.deflection_mm, "length")}`,
          ]
        : ["", "no free span known"];
    if (means === "scale")
      return tension.scale
        ? [significant(tension.scale.reading, 3), "on the saw’s scale"]
        : ["", "scale not calibrated"];
    return tension.wheel_travel_mm === null
      ? ["", "no free span known"]
      : [shop.say(tension.wheel_travel_mm, "thin"), "of the wheel from snug"];
  });
  const rows = $derived(
    [
      tension.free_span_mm === null ? "" : `free span ${shop.say(tension.free_span_mm, "length")}`,
      ...figure,
    ].map((text, i) => ({ text, strong: i === 1, dy: i * 22 })),
  );
  const said = $derived(horizontal ? { x, y: y + 40 } : { x: x + 58, y: y - 18 });
</script>

<!-- Drawn as if the strand stood upright with the outside to its right; a mill's is turned over. -->
<g transform="translate({x} {y}) rotate({horizontal ? -90 : 0})" data-means={means}>
  <path class="say" d="M46 {-half}V{half}M40 {-half}h12M40 {half}h12" />
  {#if means === "gauge"}
    <rect class="tool" x="6" y={-gauge / 2} width="16" height={gauge} />
    <path class="jaw" d="M-4 {-gauge / 2}h14M-4 {gauge / 2}h14" />
  {:else if means === "pluck"}
    <path class="sway" d="M0 {-half}Q26 0 0 {half}Q-26 0 0 {-half}" />
  {:else if means === "push"}
    <path class="sway" d="M0 {-half}L-8 0L0 {half}" />
    <path class="arrow" d="M40 0h-40m10 -6l-10 6 10 6" />
  {:else if means === "travel"}
    <path class="arrow" d="M{-reach} {-half}v-34m-6 10l6 -10 6 10" />
  {:else}
    <path
      class="say"
      d="M{-reach} {-half + 10}v44m-5 -44h10m-10 11h10m-10 11h10m-10 11h10m-10 11h10"
    />
    <path class="arrow" d="M{-reach + 20} {-half + 32}h-14m6 -5l-6 5 6 5" />
  {/if}
</g>
{#each rows as row (row.dy)}
  <text
    class:mono={row.strong}
    x={said.x}
    y={said.y + row.dy}
    text-anchor={horizontal ? "middle" : "start"}>{row.text}</text
  >
{/each}

<style>
  .say,
  .arrow,
  .sway,
  .jaw {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .arrow,
  .jaw {
    stroke-width: 2.5;
  }
  .sway {
    stroke: var(--jade);
    stroke-dasharray: 5 4;
  }
  .tool {
    fill: var(--brass);
  }
  text {
    fill: var(--ink);
    font-size: 21px;
  }
  .mono {
    font-family: var(--mono);
    font-weight: 700;
    font-size: 21px;
  }
  @media (max-width: 56.25em) {
    text {
      font-size: 24px;
    }
  }
</style>
