<script lang="ts">
  import type { TensionCard } from "../../../api/schema";
  import { bandPath, wheelsFor } from "../../../drawings/saw/wheels";
  import type { Means } from "../means";
  import SpanMeans from "./SpanMeans.svelte";

  interface Props {
    diameters: readonly number[];
    band_length_mm: number;
    horizontal: boolean;
    /** Which part is spoken of: the whole, the free span, the doors. */
    show: "mount" | "span" | "doors" | "lock";
    tension: TensionCard;
    means: Means;
  }
  const { diameters, band_length_mm, horizontal, show, tension, means }: Props = $props();

  const W = 520;
  const H = 300;
  const wheels = $derived(wheelsFor(diameters, band_length_mm));
  const box = $derived({
    left: Math.min(...wheels.map((w) => w.x - w.r)),
    right: Math.max(...wheels.map((w) => w.x + w.r)),
    top: Math.min(...wheels.map((w) => w.y - w.r)),
    bottom: Math.max(...wheels.map((w) => w.y + w.r)),
  });
  const wide = $derived(box.right - box.left);
  const tall = $derived(box.bottom - box.top);
  const scale = $derived(
    horizontal ? Math.min(460 / tall, 240 / wide) : Math.min(280 / tall, 300 / wide),
  );
  const place = $derived(
    horizontal
      ? `translate(${W / 2} ${H / 2}) rotate(-90) scale(${scale})`
      : `translate(${W / 2 - 40} ${H / 2}) scale(${scale})`,
  );
  const centre = $derived({ x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 });
  const right = $derived(wheels[0] ? wheels[0].x + wheels[0].r : 0);
  const middle = $derived(((wheels[0]?.y ?? 0) + (wheels[1]?.y ?? 0)) / 2);
  const halfSpan = $derived((Math.abs((wheels[1]?.y ?? 0) - (wheels[0]?.y ?? 0)) / 2) * scale);
  const hair = $derived(2 / scale);
  const teethX = $derived(W / 2 - 40 + (right - centre.x) * scale);
</script>

<svg viewBox="0 0 {W} {H}" role="img" aria-label="The saw's wheels and band, to scale">
  <g transform={place}>
    <g transform="translate({-centre.x} {-centre.y})">
      {#if show === "doors"}
        <rect
          class="door"
          x={box.left - 40}
          y={box.top - 40}
          width={wide + 80}
          height={(wheels[0]?.r ?? 0) * 2 + 80}
          stroke-width={hair}
        />
        <rect
          class="door"
          x={box.left - 40}
          y={(wheels[1]?.y ?? 0) - (wheels[1]?.r ?? 0) - 40}
          width={wide + 80}
          height={(wheels[1]?.r ?? 0) * 2 + 80}
          stroke-width={hair}
        />
      {/if}
      {#each wheels as wheel, i (i)}
        <circle class="wheel" cx={wheel.x} cy={wheel.y} r={wheel.r} stroke-width={hair} />
        <circle class="hub" cx={wheel.x} cy={wheel.y} r={wheel.r * 0.1} />
      {/each}
      <path class="band" d={bandPath(wheels)} stroke-width={4 / scale} />
    </g>
  </g>
  {#if !horizontal && show === "mount"}
    <rect class="table" x={teethX - 34} y={H / 2 + 40} width="30" height="8" />
    <rect class="table" x={teethX + 4} y={H / 2 + 40} width="120" height="8" />
    <path class="say" d="M{teethX + 12} {H / 2 - 44}v70m-7 -14l7 14 7 -14" />
    <text x={teethX + 28} y={H / 2 - 20}>teeth down,</text>
    <text x={teethX + 28} y={H / 2}>into the table</text>
  {:else if show === "span"}
    <SpanMeans
      {tension}
      {means}
      x={horizontal ? W / 2 + (middle - centre.y) * scale : teethX}
      y={horizontal ? H / 2 - (right - centre.x) * scale : H / 2 + (middle - centre.y) * scale}
      half={halfSpan}
      reach={(wheels[0]?.r ?? 0) * scale}
      gauge={tension.gauge_length_mm * scale}
      {horizontal}
    />
  {:else if show === "lock"}
    <g transform="translate({W - 120} 60)">
      <path class="lock" d="M18 40V24a20 20 0 0 1 40 0v16" />
      <rect class="lockbody" x="4" y="40" width="68" height="52" rx="4" />
      <path class="key" d="M38 58v16" />
      <text x="38" y="120" text-anchor="middle">off and locked</text>
    </g>
  {/if}
</svg>

<style>
  svg {
    width: 100%;
    max-height: 19rem;
    display: block;
  }
  .wheel {
    fill: var(--paper);
    stroke: var(--steel);
  }
  .hub {
    fill: var(--steel);
  }
  .band {
    fill: none;
    stroke: var(--jade);
  }
  .table {
    fill: var(--steel);
  }
  .door {
    fill: var(--wood-sawn);
    stroke: var(--ink);
    opacity: 0.7;
  }
  .say {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .lock {
    fill: none;
    stroke: var(--brass);
    stroke-width: 8;
  }
  .lockbody {
    fill: var(--brass);
  }
  .key {
    stroke: var(--ground);
    stroke-width: 6;
  }
  text {
    fill: var(--ink);
    font-size: 17px;
  }
</style>
