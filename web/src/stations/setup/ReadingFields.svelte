<script lang="ts">
  import { ask, client } from "../../api/client";
  import type { SetupAnswer, SetupStep, StepReading } from "../../api/schema";
  import { enterGoesOn } from "../../lib/figures/enter";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import type { Said } from "../../lib/figures/units";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import type { SetupState } from "./setup.svelte";

  interface Props {
    card: SetupState;
    setup: SetupAnswer;
    step: SetupStep;
  }
  const { card, setup, step }: Props = $props();

  const draft = $derived(card.draft(step.key));
  const last = $derived(setup.last?.left[step.key] ?? {});
  const compared = $derived(setup.compared.filter((c) => c.step === step.key));
  const SIDES = [
    ["found", "found"],
    ["left", "left"],
  ] as const;

  /** Readings of last time that nothing stands for yet. */
  const untaken = $derived(
    step.readings.filter((r) => last[r.key] !== undefined && draft.left[r.key] === undefined),
  );

  function takeAll(): void {
    for (const r of untaken) card.setFigure(step.key, "left", r.key, last[r.key] ?? null);
  }

  function fault(side: string, reading: string): Said {
    return card.faults.find((f) => f.path === `${side}.${reading}`)?.message ?? "";
  }

  function help(reading: StepReading, side: string): string {
    if (side !== "left") return "";
    const value = last[reading.key];
    const before = value === undefined ? "" : `last time ${shop.say(value, reading.kind)}`;
    return [wanted(reading), before].filter(Boolean).join("; ");
  }

  /** The limits a reading is judged by when it is left. */
  function wanted(reading: StepReading): string {
    const limit = reading.limit;
    if (!limit || typeof limit.high !== "number") return "";
    const high = shop.say(limit.high, reading.kind);
    if (!limit.low) return `wanted: up to ${high}`;
    return `wanted: ${shop.number(limit.low, reading.kind)} to ${high}`;
  }

  /** The stand-in that reads this figure, where one is chosen. */
  function simulated(reading: StepReading): string {
    const kind = reading.instrument ?? "";
    return setup.instruments[kind] === "simulated" ? kind : "";
  }

  async function read(reading: StepReading): Promise<void> {
    const params = { path: { setup_id: setup.id } };
    const body = { kind: simulated(reading), step: step.key, reading: reading.key };
    try {
      const got = await ask(client.POST("/api/setups/{setup_id}/read", { params, body }));
      const side = draft.found[reading.key] === undefined ? "found" : "left";
      card.setFigure(step.key, side, reading.key, got.value);
      notice.say(`${shop.say(got.value, reading.kind)} from the ${got.instrument}.`);
    } catch (problem) {
      notice.fail(problem);
    }
  }

  const record = enterGoesOn(() =>
    document.querySelector<HTMLElement>(".record button[data-main='true']")?.focus(),
  );

  function said(c: (typeof compared)[number]): string {
    const kind = c.kind;
    const more = c.difference > 0 ? "more" : "less";
    if (c.difference === 0) return `${c.label}: as last time`;
    return `${c.label}: ${shop.say(Math.abs(c.difference), kind)} ${more} than last time`;
  }
</script>

<div class="readings no-print" role="group" aria-label="Readings" {@attach record}>
  {#each step.readings as reading (reading.key)}
    <div class="reading">
      {#each SIDES as [side, word] (side)}
        <QuantityField
          label="As {word}, {reading.label}"
          kind={reading.kind}
          value={draft[side][reading.key] ?? null}
          error={fault(side, reading.key)}
          help={help(reading, side)}
          onvalue={(v) => card.setFigure(step.key, side, reading.key, v)}
        />
      {/each}
      <div class="tools">
        {#if simulated(reading)}
          <button type="button" onclick={() => void read(reading)}
            >Read {simulated(reading).replaceAll("_", " ")} <small>simulated</small></button
          >
        {/if}
        {#if last[reading.key] !== undefined && draft.left[reading.key] === undefined}
          <button
            type="button"
            onclick={() => card.setFigure(step.key, "left", reading.key, last[reading.key] ?? null)}
            >As last time</button
          >
        {/if}
      </div>
    </div>
  {/each}
  {#if untaken.length > 1}
    <p>
      <button type="button" class="all" onclick={takeAll}>All as last time</button>
    </p>
  {/if}
  {#if compared.length > 0}
    <p class="soft">{compared.map(said).join(" · ")}.</p>
  {/if}
</div>

<style>
  .readings {
    display: grid;
    gap: var(--s2);
    padding-top: var(--s4);
  }
  .reading {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(13rem, 100%), 1fr));
    gap: var(--s3);
    align-items: start;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
    padding-top: var(--s5);
  }
  .tools button,
  .all {
    min-height: var(--touch);
    padding: 0 var(--s3);
    background: var(--jade-pale);
    border: 0;
    border-bottom: var(--rule) solid var(--jade);
  }
  small {
    color: var(--brass-text);
    font-size: var(--text-small);
  }
</style>
