<script lang="ts">
  import { scaleLog } from "d3-scale";

  import type { SawAnswer } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { significant } from "../../../lib/figures/units";

  interface Props {
    drive: SawAnswer["saw"]["drive"];
    set_m_s: number;
    target_m_s: number;
  }
  const { drive, set_m_s, target_m_s }: Props = $props();

  const W = 520;
  const Y = 120;
  const inverter = $derived(drive?.kind === "inverter");
  const perHz = $derived((drive?.base_speed_m_s ?? 1) / (drive?.base_hz ?? 1));
  const range = $derived<readonly [number, number] | null>(
    inverter ? [perHz * (drive?.min_hz ?? 1), perHz * (drive?.max_hz ?? 1)] : null,
  );
  const steps = $derived(drive?.speeds_m_s ?? []);
  const all = $derived([...steps, ...(range ?? []), set_m_s, target_m_s]);
  const x = $derived(
    scaleLog()
      .domain([Math.min(...all) / 1.5, Math.max(...all) * 1.5])
      .range([20, W - 20]),
  );
</script>

<svg
  class="drawing"
  viewBox="0 0 {W} 210"
  role="img"
  aria-label="Speeds of this drive on one scale: set {shop.say(set_m_s, 'speed')}, {shop.say(
    target_m_s,
    'speed',
  )} wanted"
>
  <path class="axis" d="M20 {Y}H{W - 20}" />
  {#if range}
    <rect class="range" x={x(range[0])} y={Y - 14} width={x(range[1]) - x(range[0])} height="14" />
    {#each range as end, i (i)}
      <text x={x(end)} y={Y + 26} text-anchor="middle">{significant(end / perHz, 3)} Hz</text>
    {/each}
  {/if}
  {#each steps as step (step)}
    <circle class="step" cx={x(step)} cy={Y} r="8" />
    <text x={x(step)} y={Y + 34} text-anchor="middle">{shop.number(step, "speed")}</text>
  {/each}
  <path class="target" d="M{x(target_m_s)} {Y - 52}V{Y + 8}" />
  <text x={x(target_m_s)} y={Y - 60} text-anchor="middle"
    >wanted {shop.say(target_m_s, "speed")}</text
  >
  <path class="set" d="M{x(set_m_s)} {Y + 46}l-11 22h22z" />
  <text class="strong" x={x(set_m_s)} y={Y + 86} text-anchor="middle">set here</text>
</svg>

<style>
  .axis {
    stroke: var(--ink);
  }
  .range {
    fill: var(--jade);
  }
  .step {
    fill: var(--jade);
    stroke: var(--ink);
  }
  .target {
    stroke: var(--brass);
    stroke-width: 2.5;
    stroke-dasharray: 5 4;
  }
  .set {
    fill: var(--brass);
  }
  .drawing text {
    font-family: var(--mono);
    font-size: 16px;
  }
  .strong {
    font-weight: 700;
  }
</style>
