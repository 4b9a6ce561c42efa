<script lang="ts">
  import type { GuideCard } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";

  interface Props {
    press: NonNullable<GuideCard["roller_press_mm"]>;
    flange_mm: number;
    /** Which arm's roller is set now. */
    arm: "movable" | "fixed";
  }
  const { press, flange_mm, arm }: Props = $props();
  const W = 520;
  const line = 70;
  /** Pressed down, drawn five times life size between wheels drawn small. */
  const down = $derived(((press.least_mm + press.most_mm) / 2) * 5);
  const y = $derived(line + down);
  const r = 24;
  const at = { movable: 170, fixed: 350 };
</script>

<svg
  viewBox="0 0 {W} 210"
  role="img"
  aria-label="The rollers press the band below the wheels’ line"
>
  <circle class="wheel" cx="40" cy={line - 34} r="34" />
  <circle class="wheel" cx={W - 40} cy={line - 34} r="34" />
  <path class="line" d="M40 {line}H{W - 40}" />
  <path class="band" d="M40 {line}L{at.movable} {y}H{at.fixed}L{W - 40} {line}" />
  {#each ["movable", "fixed"] as const as which (which)}
    <circle class="roller" class:now={which === arm} cx={at[which]} cy={y - r} {r} />
    <text x={at[which]} y={y - 2 * r - 8} text-anchor="middle">{which} arm</text>
  {/each}
  <path class="dim" d="M{at[arm] + 46} {line}V{y}m-6 0h12m-12 {line - y}h12" />
  <text class="mono" x={at[arm] + 58} y={(line + y) / 2 + 5}
    >{shop.say(press.least_mm, "length")} to {shop.say(press.most_mm, "length")}</text
  >
  <text x={W / 2} y={y + 34} text-anchor="middle"
    >flange {shop.say(flange_mm, "length")} behind the back, seen from above</text
  >
  <path class="band" d="M{W / 2 - 120} {y + 60}H{W / 2 + 120}" />
  <rect class="roller now" x={W / 2 - 26} y={y + 72} width="52" height="10" />
</svg>

<style>
  svg {
    width: 100%;
    max-width: 32rem;
  }
  .wheel {
    fill: var(--paper);
    stroke: var(--steel);
    stroke-width: var(--rule);
  }
  .line {
    stroke: var(--steel);
    stroke-dasharray: 6 5;
    fill: none;
  }
  .band {
    stroke: var(--jade);
    stroke-width: 4;
    fill: none;
  }
  .roller {
    fill: var(--wood);
    stroke: var(--ink);
  }
  .roller.now {
    stroke-width: 3;
  }
  .dim {
    stroke: var(--ink);
    fill: none;
  }
  text {
    font-size: 15px;
    fill: var(--ink);
  }
</style>
