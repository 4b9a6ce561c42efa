<script lang="ts">
  import { scaleLinear } from "d3-scale";

  import { ask, askPatiently, client, wordsOf } from "../../../api/client";
  import type { ScaleAnswer } from "../../../api/schema";
  import { choicesOf } from "../../../lib/forms";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { percent, significant, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";

  interface Props {
    saw_id: number;
  }
  const { saw_id }: Props = $props();

  let answer = $state<ScaleAnswer | null>(null);
  let reading = $state<number | null>(null);
  let stress = $state<number | null>(null);
  let travel = $state<number | null>(null);
  let note = $state<number | null>(null);
  let means = $state<"gauge" | "pluck" | "push">("gauge");
  let fault = $state<Said>("");
  const params = $derived({ path: { saw_id } });

  async function load(): Promise<void> {
    answer = await askPatiently(() => client.GET("/api/saws/{saw_id}/scale", { params }));
  }
  // The saw names the scale; its points are the server's.
  $effect(() => {
    load().catch((p: unknown) => notice.fail(p));
  });

  async function add(): Promise<void> {
    if (reading === null || stress === null) return;
    const body = { reading, stress_MPa: stress, travel_mm: travel, note_Hz: note, means };
    try {
      answer = await ask(client.POST("/api/saws/{saw_id}/scale", { params, body }));
      reading = stress = travel = note = null;
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  async function remove(point_id: number): Promise<void> {
    try {
      const path = { point_id };
      const { change_id } = await ask(
        client.DELETE("/api/scale-points/{point_id}", { params: { path } }),
      );
      await load();
      notice.canUndo("Point deleted.", change_id, load);
    } catch (problem) {
      notice.fail(problem);
    }
  }

  const W = 460;
  const H = 230;
  const most = $derived(Math.max(1, ...(answer?.points ?? []).map((p) => p.reading)) * 1.15);
  const top = $derived(Math.max(1, ...(answer?.points ?? []).map((p) => p.force_N)) * 1.2);
  const x = $derived(
    scaleLinear()
      .domain([0, most])
      .range([58, W - 12]),
  );
  const y = $derived(
    scaleLinear()
      .domain([0, top])
      .range([H - 34, 12]),
  );
</script>

{#if answer}
  <div class="two">
    <div>
      <svg viewBox="0 0 {W} {H}" role="img" aria-label="Wheel force against the scale's reading">
        <path class="axis" d="M58 12V{H - 34}H{W - 12}" />
        {#each x.ticks(5) as t (t)}<text x={x(t)} y={H - 14} text-anchor="middle">{t}</text>{/each}
        {#each y.ticks(4) as t (t)}<text x="52" y={y(t) + 5} text-anchor="end"
            >{shop.number(t, "force")}</text
          >{/each}
        {#if answer.fit}
          {@const fit = answer.fit}
          <path
            class="fit"
            d="M{x(fit.lowest)} {y(fit.offset_N + fit.slope_N * fit.lowest)}L{x(fit.highest)} {y(
              fit.offset_N + fit.slope_N * fit.highest,
            )}"
          />
        {/if}
        {#each answer.points as p (p.id)}<circle cx={x(p.reading)} cy={y(p.force_N)} r="5" />{/each}
        <text x={W - 12} y={H - 38} text-anchor="end">its scale</text>
        <text x="64" y="22">{shop.unit("force")} at the wheel</text>
      </svg>
      <p>
        {#if answer.fit}{answer.fit.count} points, within {shop.say(answer.fit.spread_N, "force")} of
          the line. Trusted from {significant(answer.fit.lowest, 3)} to {significant(
            answer.fit.highest,
            3,
          )}.{:else}Not yet: {shop.words(answer.why_not)}.{/if}
      </p>
      {#each answer.marks as mark (mark.width_mm)}
        <p>
          The mark for {shop.say(mark.width_mm, "length")} at {significant(mark.reading, 3)} gives
          <strong class="mono">{shop.say(mark.stress_MPa, "stress")}</strong>, where {shop.say(
            mark.target_MPa,
            "stress",
          )} is wanted: {percent(Math.abs(mark.stress_MPa / mark.target_MPa - 1))}
          {mark.stress_MPa < mark.target_MPa ? "slack" : "over"}.
        </p>
      {/each}
    </div>
    <div>
      {#each answer.points as p (p.id)}
        <p class="point">
          <span class="mono">{significant(p.reading, 3)}</span>
          <span class="mono">{shop.say(p.stress_MPa, "stress")}</span>
          <span>{p.band_label}, {p.means}</span>
          <span class="soft"
            >{p.residual_N === null
              ? ""
              : `${p.residual_N > 0 ? "+" : "−"}${shop.say(Math.abs(p.residual_N), "force")} off the line`}</span
          >
          <Action onclick={() => void remove(p.id)}>Delete</Action>
        </p>
      {/each}
      <div class="line">
        <QuantityField
          label="The scale reads"
          kind="plain"
          value={reading}
          onvalue={(v) => (reading = v)}
        />
        <QuantityField
          label="Measured stress"
          kind="stress"
          value={stress}
          onvalue={(v) => (stress = v)}
        />
        <QuantityField
          label="Wheel travel since snug"
          kind="thin"
          value={travel}
          help="If you measured it: then travel is calibrated too."
          onvalue={(v) => (travel = v)}
        />
        <QuantityField
          label="Note of the plucked band, Hz, if heard"
          kind="plain"
          value={note}
          onvalue={(v) => (note = v)}
        />
        <label
          >Measured by<select bind:value={means}>
            {#each choicesOf("means").slice(0, 3) as by (by.key)}
              <option value={by.key}>{by.name}</option>
            {/each}
          </select></label
        >
        <Action disabled={reading === null || stress === null} onclick={() => void add()}
          >Keep the point</Action
        >
      </div>
      {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
    </div>
  </div>
{/if}

<style>
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
    gap: var(--s5);
    padding-bottom: var(--s3);
  }
  svg {
    width: 100%;
    max-width: 34rem;
  }
  .axis {
    fill: none;
    stroke: var(--ink);
  }
  .fit {
    stroke: var(--jade);
    stroke-width: 2.5;
  }
  circle {
    fill: var(--brass);
    stroke: var(--ink);
  }
  text {
    fill: var(--ink);
    font-family: var(--mono);
    font-size: 19px;
  }
  .point {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s3);
    align-items: center;
    border-bottom: var(--hair) solid var(--hairline);
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: start;
    padding-top: var(--s3);
  }
  .line :global(.action) {
    margin-top: var(--s5);
  }
</style>
