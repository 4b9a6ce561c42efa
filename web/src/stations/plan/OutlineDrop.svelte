<script lang="ts">
  import { ask, client, Problem, wordsOf } from "../../api/client";
  import type { OutlineAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import Choices from "../../parts/fields/Choices.svelte";
  import OutlineDrawing from "../../parts/pictures/OutlineDrawing.svelte";
  import type { Said } from "../../lib/figures/units";

  const UNITS = ["mm", "cm", "in", "ft", "m"] as const;
  let answer = $state<OutlineAnswer | null>(null);
  let fault = $state<Said>("");
  let asksUnit = $state(false);
  let file = $state<{ name: string; text: string } | null>(null);
  let over = $state(false);
  let picker = $state<HTMLInputElement>();

  const band = $derived(currentJob.band);
  const turning = $derived(answer?.turning.map((b) => b.label).slice(0, 8) ?? []);
  const tight = $derived(answer?.turning.find((b) => b.band_id === band?.band_id)?.tightest_mm);

  async function read(unit: string | null): Promise<void> {
    if (!file) return;
    try {
      const call = client.POST("/api/plan/outline", { body: { ...file, unit } });
      const found = (await ask(call)) as unknown as OutlineAnswer;
      answer = found;
      fault = "";
      asksUnit = false;
      const radius = found.outline.min_radius_mm;
      currentJob.change({
        min_radius_mm: radius === null ? null : Number(radius.toFixed(2)),
        stretches: found.outline.stretches,
        length_mm: Number(found.outline.length_mm.toFixed(0)) || 1,
      });
    } catch (problem) {
      answer = null;
      const known = problem instanceof Problem ? problem : null;
      asksUnit = known?.errors.some((e) => e.path === "unit") ?? false;
      fault = known?.errors[0]?.message ?? wordsOf(problem);
    }
  }

  async function take(given: File | undefined): Promise<void> {
    if (!given) return;
    file = { name: given.name, text: await given.text() };
    await read(null);
  }

  function drop(event: DragEvent): void {
    event.preventDefault();
    over = false;
    void take(event.dataTransfer?.files[0]);
  }
</script>

<section
  class="drop no-print"
  data-over={over}
  aria-label="Outline"
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={drop}
>
  <div class="words">
    <button type="button" onclick={() => picker?.click()}>Take the radius from a drawing</button>
    <span class="soft">SVG or DXF, chosen or dropped here</span>
    <input
      bind:this={picker}
      type="file"
      accept=".svg,.dxf"
      class="unseen"
      tabindex="-1"
      aria-label="Outline file"
      onchange={() => void take(picker?.files?.[0])}
    />
    {#if fault}<p class="fault" role="alert">{file?.name}: {shop.words(fault)}</p>{/if}
    {#if asksUnit}
      <Choices
        legend="The drawing’s unit"
        chosen={null}
        options={UNITS.map((key) => ({ key, name: key }))}
        onchoose={(unit) => void read(unit)}
      />
    {/if}
    {#if answer}
      <p>
        {#if answer.outline.min_radius_mm === null}
          All straight: no radius to turn.
        {:else}
          Tightest smooth radius <strong class="mono"
            >{shop.say(answer.outline.min_radius_mm, "length")}</strong
          >,
          {shop.say(answer.outline.length_mm, "length")} long.
        {/if}
        {answer.outline.corners.length} sharp {answer.outline.corners.length === 1
          ? "corner"
          : "corners"}{answer.outline.corners.length > 0 ? ": a relief cut or a hole at each" : ""}.
      </p>
      <p class="soft">
        {answer.turning.length} on the rack turn it{turning.length > 0
          ? `, widest first: ${turning.join(", ")}`
          : ""}.
      </p>
    {/if}
  </div>
  {#if answer}<OutlineDrawing
      outline={answer.outline}
      turns_mm={tight ?? null}
      label={band?.label ?? ""}
    />{/if}
</section>

<style>
  .drop {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4) var(--s6);
    align-items: flex-start;
    padding: var(--s3) 0;
    border-bottom: var(--hair) dashed var(--hairline);
  }
  .drop[data-over="true"] {
    background: var(--jade-pale);
  }
  .words {
    flex: 1 1 22rem;
  }
  button {
    min-height: var(--touch);
    border-bottom: 2px dotted var(--jade);
    color: var(--jade);
    font-weight: 600;
    margin-right: var(--s3);
  }
</style>
