<script lang="ts">
  import { scaleLinear } from "d3-scale";

  import type { Heard } from "../../../api/schema";
  import { significant } from "../../../lib/figures/units";

  interface Props {
    heard: Heard;
    wanted_Hz: number | null;
  }
  const { heard, wanted_Hz }: Props = $props();

  const W = 640;
  const H = 150;
  /** Four partials and the wanted note are what there is to see. */
  const most = $derived(
    Math.min(600, Math.max(heard.frequency_Hz * 4.5, (wanted_Hz ?? 0) * 1.5, 100)),
  );
  const x = $derived(
    scaleLinear()
      .domain([0, most])
      .range([10, W - 10]),
  );
  const y = scaleLinear()
    .domain([0, 1])
    .range([H - 26, 30]);
  const bars = $derived(
    heard.spectrum_Hz
      .map((f, i) => ({ f, level: heard.spectrum[i] ?? 0 }))
      .filter((b) => b.f <= most),
  );
</script>

<svg
  viewBox="0 0 {W} {H}"
  role="img"
  aria-label="Spectrum of the pluck: heard {significant(heard.frequency_Hz, 3)} Hz"
>
  {#each bars as bar (bar.f)}
    <path class="bar" d="M{x(bar.f)} {y(0)}V{y(bar.level)}" />
  {/each}
  <path class="axis" d="M10 {y(0)}H{W - 10}" />
  {#each x.ticks(6) as tick (tick)}
    <text x={x(tick)} y={H - 6} text-anchor="middle">{tick}</text>
  {/each}
  {#if wanted_Hz !== null}
    <path class="wanted" d="M{x(wanted_Hz)} {y(0)}V22" />
    <text x={x(wanted_Hz)} y="16" text-anchor={wanted_Hz < heard.frequency_Hz ? "end" : "start"}
      >wanted</text
    >
  {/if}
  <path class="heard" d="M{x(heard.frequency_Hz)} {y(0)}V22" />
  <text
    class="strong"
    x={x(heard.frequency_Hz)}
    y="16"
    text-anchor={wanted_Hz !== null && wanted_Hz < heard.frequency_Hz ? "start" : "end"}
    >heard
  </text>
  <text x={W - 10} y="40" text-anchor="end">Hz</text>
</svg>

<style>
  svg {
    width: 100%;
    max-width: 44rem;
    display: block;
  }
  .bar {
    stroke: var(--jade);
    stroke-width: 2.4;
  }
  .axis {
    stroke: var(--ink);
  }
  .wanted {
    stroke: var(--brass);
    stroke-width: 2;
    stroke-dasharray: 5 4;
  }
  .heard {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  text {
    fill: var(--ink);
    font-size: 14px;
    font-family: var(--mono);
  }
  .strong {
    font-weight: 700;
  }
</style>
