<script lang="ts">
  import type { FaceAnswer } from "../../api/schema";
  import { cells } from "../../drawings/relief";
  import { shop } from "../../lib/shop.svelte";
  import { fixed, unitSize } from "../../lib/figures/units";

  const { face }: { face: FaceAnswer } = $props();
  const W = 560;
  const H = 170;
  const map = $derived(face.face.map);
  /** Half the tolerance off the mean is as dark as it gets. */
  const shaded = $derived(cells(face.face.relief_mm, face.tolerance_mm / 2));
  const px = (along: number) => along * W;
  const py = (up: number) => ((1 - up) / 2) * H;
  /** As a caliper shows it. */
  const read = (mm: number) =>
    fixed(mm / unitSize("length", shop.units), shop.units === "inch" ? 3 : 2);
  const words = $derived(
    `The face, mean ${shop.say(map.mean_mm, "thin")}; ` +
      face.readings.map((r) => read(r[2] ?? 0)).join(", "),
  );
</script>

<figure>
  <svg
    shape-rendering="geometricPrecision"
    viewBox="-34 -14 {W + 68} {H + 40}"
    role="img"
    aria-label={words}
  >
    {#each shaded as cell, i (i)}
      <rect
        x={cell.x * W}
        y={cell.y * H}
        width={cell.width * W}
        height={cell.height * H}
        shape-rendering="crispEdges"
        class={cell.share >= 0 ? "thick" : "thin"}
        fill-opacity={Math.abs(cell.share)}
      />
    {/each}
    <rect class="edge" width={W} height={H} />
    {#each face.readings as reading, i (i)}
      {@const x = px(reading[0] ?? 0)}
      {@const y = py(reading[1] ?? 0)}
      <circle cx={x} cy={y} r="4" />
      <text
        {x}
        y={y > H - 20 ? y - 9 : y + 19}
        text-anchor={x < 20 ? "start" : x > W - 20 ? "end" : "middle"}>{read(reading[2] ?? 0)}</text
      >
    {/each}
    <text class="name" x="0" y={H + 20}>start of the cut</text>
    <text class="name" x={W} y={H + 20} text-anchor="end">end</text>
  </svg>
  <figcaption>
    Mean <strong class="mono">{shop.say(map.mean_mm, "thin")}</strong>. Green is thick, brown thin;
    half the tolerance off is as dark as it gets.
  </figcaption>
</figure>

<style>
  figure {
    margin: 0;
  }
  svg {
    width: 100%;
    max-height: 16rem;
  }
  .thick {
    fill: var(--jade);
  }
  .thin {
    fill: var(--brass);
  }
  .edge {
    fill: none;
    stroke: var(--ink);
  }
  circle {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  text {
    font: 15px var(--mono);
    font-weight: 600;
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
  }
  .name {
    font: 14px var(--font);
    fill: var(--ink-soft);
  }
  figcaption {
    color: var(--ink-soft);
  }
</style>
