<script lang="ts">
  import type { CutSlice, MatchedSet } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { heldCut, tenth } from "./stock";

  interface Props {
    thickness_mm: number;
    height_mm: number;
    /** Left once it is trued: the slices lie in it. */
    usable_mm: number;
    kerf_mm: number;
    cuts: readonly number[];
    slices: readonly CutSlice[];
    leaves: MatchedSet | null;
    oncuts: (cuts: number[]) => void;
  }
  const { thickness_mm, height_mm, usable_mm, kerf_mm, cuts, slices, leaves, oncuts }: Props =
    $props();

  const W = 860;
  const scale = $derived(W / thickness_mm);
  const H = $derived(Math.min(300, Math.max(120, height_mm * scale * 0.6)));
  /** What truing takes lies half on either side. */
  const offset = $derived((thickness_mm - usable_mm) / 2);
  const x = (mm: number) => (offset + mm) * scale;
  const STEP_MM = 0.5;
  let dragging = $state<number | null>(null);
  let svg = $state<SVGSVGElement>();
  /** Leaves are counted over the slices that are pieces. */
  const leafOf = $derived(
    new Map(slices.filter((s) => s.piece).map((s, i) => [s.number, leaves?.leaves[i]])),
  );

  function move(place: number, wanted: number): void {
    const held = heldCut(cuts, place, wanted, kerf_mm, usable_mm);
    oncuts(cuts.map((c, i) => (i === place ? held : c)));
  }

  function drag(event: PointerEvent): void {
    // The picture may stand smaller than its box: its own matrix tells where the pointer is in it.
    const onto = svg?.getScreenCTM()?.inverse();
    if (dragging === null || !onto) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(onto).x;
    move(dragging, at / scale - offset - kerf_mm / 2);
  }

  function nudge(event: KeyboardEvent, place: number): void {
    const step = { ArrowRight: STEP_MM, ArrowLeft: -STEP_MM, PageUp: 5, PageDown: -5 }[event.key];
    if (!step) return;
    event.preventDefault();
    move(place, (cuts[place] ?? 0) + step);
  }
</script>

<!-- The handles are sliders; the picture around them only takes the pointer. -->
<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="wide">
  <svg
    bind:this={svg}
    viewBox="-20 -34 {W + 40} {H + 76}"
    onpointermove={drag}
    onpointerup={() => (dragging = null)}
    onpointercancel={() => (dragging = null)}
  >
    <defs>
      <pattern
        id="trued-off"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"><path d="M0 0V7" class="hatch" /></pattern
      >
    </defs>
    <rect class="billet" width={W} height={H} />
    {#if offset > 0}
      <rect fill="url(#trued-off)" width={offset * scale} height={H} />
      <rect fill="url(#trued-off)" x={W - offset * scale} width={offset * scale} height={H} />
    {/if}
    {#each slices as slice (slice.number)}
      {@const leaf = leafOf.get(slice.number)}
      {@const wide = x(slice.to_mm) - x(slice.from_mm)}
      {@const middle = (x(slice.from_mm) + x(slice.to_mm)) / 2}
      <rect class="slice" data-piece={slice.piece} x={x(slice.from_mm)} width={wide} height={H} />
      {#if wide > 14}<text x={middle} y={H / 2}>{slice.number}</text>{/if}
      {#if wide > 44}
        <text class="mm" x={middle} y={H / 2 + 22}
          >{shop.number(tenth(slice.to_mm - slice.from_mm), "length")}</text
        >
      {/if}
      {#if leaf && !leaf.single}
        <!-- A triangle on the side that shows once the pair is opened. -->
        {@const side = leaf.shows === "face" ? x(slice.from_mm) : x(slice.to_mm)}
        {@const into = leaf.shows === "face" ? 9 : -9}
        <path class="opens" d="M{side} {H - 26}l{into} 7l{-into} 7Z" />
      {/if}
    {/each}
    {#each cuts as cut, i (i)}
      {@const at = x(cut + kerf_mm / 2)}
      <rect class="kerf" x={x(cut)} width={Math.max(kerf_mm * scale, 1.5)} height={H} />
      <g
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="Cut {i + 1}"
        aria-valuemin={0}
        aria-valuemax={usable_mm}
        aria-valuenow={cut}
        aria-valuetext="{shop.say(cut, 'length')} from the face"
        transform="translate({at} 0)"
        onkeydown={(e) => nudge(e, i)}
        onpointerdown={(e) => {
          dragging = i;
          svg?.setPointerCapture(e.pointerId);
        }}
      >
        <rect x="-22" y="-34" width="44" height={H + 34} fill="transparent" />
        <path d="M-9 -20H9L0 -4Z" />
      </g>
    {/each}
    <text class="name" x="0" y={H + 22}>marked face</text>
    <text class="name end" x={W} y={H + 22}>back</text>
  </svg>
</div>

<style>
  .wide {
    overflow-x: auto;
  }
  @media (max-width: 45em) {
    svg {
      min-width: 40rem;
    }
  }
  svg {
    width: 100%;
    max-height: 24rem;
    touch-action: pan-y;
  }
  .billet {
    fill: var(--wood);
    stroke: var(--ink);
  }
  .hatch {
    stroke: var(--hairline);
    stroke-width: 2;
  }
  .slice {
    fill: var(--wood-sawn);
  }
  .slice[data-piece="true"] {
    fill: var(--paper);
    stroke: var(--ink);
  }
  .kerf {
    fill: var(--jade);
  }
  .opens {
    fill: var(--brass-text);
  }
  text {
    font: 18px var(--mono);
    font-weight: 700;
    fill: var(--ink);
    text-anchor: middle;
  }
  .mm {
    font-weight: 400;
    font-size: 19px;
  }
  .name {
    font: 15px var(--font);
    fill: var(--ink-soft);
    text-anchor: start;
  }
  .end {
    text-anchor: end;
  }
  .handle {
    cursor: ew-resize;
  }
  .handle path {
    fill: var(--brass);
    stroke: var(--ground);
  }
  .handle:focus-visible {
    outline: 3px solid var(--focus);
  }
</style>
