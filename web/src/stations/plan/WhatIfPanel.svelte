<script lang="ts">
  import type { WhatIf } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { significant, type Kind } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import type { PlanState } from "./plan.svelte";

  const { plan }: { plan: PlanState } = $props();

  const saw = $derived(shop.saw(currentJob.draft.saw_id)?.saw);
  const best = $derived(plan.answer?.best ?? null);
  /** The height as it stood when something was first tried, to go back to. */
  let heightBefore = $state<number | null>(null);
  const tried = $derived(currentJob.draft.what_if !== null || heightBefore !== null);

  interface Slider {
    readonly key: keyof WhatIf;
    readonly label: string;
    readonly kind: Kind;
    readonly unit: string;
    readonly own: number;
    readonly low: number;
    readonly high: number;
    readonly step: number;
  }
  const sliders = $derived<Slider[]>([
    {
      key: "motor_kW",
      label: "motor",
      kind: "plain",
      unit: "kW",
      own: saw?.motor_kW ?? 1,
      low: 0.2,
      high: 15,
      step: 0.1,
    },
    {
      key: "stress_MPa",
      label: "tension",
      kind: "stress",
      unit: "",
      own: best?.stress_target_MPa ?? 150,
      low: 40,
      high: 300,
      step: 5,
    },
    {
      key: "guard_gap_mm",
      label: "guard above the work",
      kind: "length",
      unit: "",
      own: shop.settings?.guard_gap_mm ?? 10,
      low: 2,
      high: 50,
      step: 1,
    },
    {
      key: "dullness",
      label: "dullness",
      kind: "plain",
      unit: "",
      own: best?.band.dullness ?? 0,
      low: 0,
      high: 1,
      step: 0.05,
    },
  ]);

  function set(key: keyof WhatIf, value: number): void {
    currentJob.change({ what_if: { ...currentJob.draft.what_if, [key]: value } });
  }

  function setHeight(value: number): void {
    heightBefore ??= currentJob.draft.height_mm;
    currentJob.change({ height_mm: value });
  }

  async function keep(): Promise<void> {
    try {
      await currentJob.saveVariant();
      heightBefore = null;
      notice.say(`${currentJob.name} is kept beside the job.`);
    } catch (problem) {
      notice.fail(problem);
    }
  }

  function reset(): void {
    const height = heightBefore ?? currentJob.draft.height_mm;
    currentJob.change({ what_if: null, height_mm: height });
    heightBefore = null;
  }
</script>

<div class="no-print">
  <div class="sliders">
    <label>
      <span>height of the work</span>
      <input
        type="range"
        min="5"
        max={saw?.height_mm ?? 300}
        step="1"
        value={currentJob.draft.height_mm}
        oninput={(e) => setHeight(e.currentTarget.valueAsNumber)}
      />
      <output class="mono">{shop.say(currentJob.draft.height_mm, "length")}</output>
    </label>
    {#each sliders as s (s.key)}
      {@const value = currentJob.draft.what_if?.[s.key] ?? s.own}
      <label
        data-tried={currentJob.draft.what_if?.[s.key] !== undefined &&
          currentJob.draft.what_if?.[s.key] !== null}
      >
        <span>{s.label}</span>
        <input
          type="range"
          min={s.low}
          max={s.high}
          step={s.step}
          {value}
          oninput={(e) => set(s.key, e.currentTarget.valueAsNumber)}
        />
        <output class="mono"
          >{s.kind === "plain"
            ? `${significant(value, 2, true)} ${s.unit}`.trim()
            : shop.say(value, s.kind)}</output
        >
      </label>
    {/each}
  </div>
  {#if tried}
    <p class="tried">
      Tried out: the answer above is not the shop as it is.
      <Action onclick={reset}>Reset</Action>
      <Action onclick={() => void keep()}>Keep as a variant</Action>
    </p>
  {/if}
</div>

<style>
  .sliders {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
    gap: 0 var(--s6);
  }
  label {
    grid-template-columns: minmax(5rem, 9rem) minmax(0, 1fr) minmax(4rem, 6rem);
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
  }
  label[data-tried="true"] {
    background: var(--jade-pale);
  }
  input {
    width: 100%;
  }
  output {
    font-weight: 650;
    text-align: right;
  }
  .tried {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: center;
    color: var(--brass-text);
    font-weight: 650;
  }
</style>
