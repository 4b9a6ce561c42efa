<script lang="ts">
  import { push } from "svelte-spa-router";

  import { ask, client, Problem } from "../../api/client";
  import type { BilletPlanAnswer, StockAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  interface Props {
    stock: StockAnswer;
    plan: BilletPlanAnswer;
    kerf_mm: number;
  }
  const { stock, plan, kerf_mm }: Props = $props();
  let at = $state<number | null>(null);
  let first = $state<number | null>(null);
  let second = $state<number | null>(null);
  let faults = $state<Record<string, Said>>({});
  const opening = $derived(plan.opening);
  const place = $derived(at ?? opening?.from_face_mm ?? null);

  async function open(): Promise<void> {
    if (place === null || first === null || second === null) {
      faults = {
        ...(first === null
          ? { first_bow_mm: "is missing; accepted: its bow now, 0 for none" }
          : {}),
        ...(second === null ? { second_bow_mm: "is missing; accepted: its bow now" } : {}),
      };
      return;
    }
    try {
      const params = { path: { stock_id: stock.id } };
      const body = { from_face_mm: place, kerf_mm, first_bow_mm: first, second_bow_mm: second };
      const opened = await ask(client.POST("/api/stock/{stock_id}/open", { params, body }));
      notice.canUndo(
        `${opened.first.label} and ${opened.second.label} are on the rack.`,
        opened.change_id,
        () => push(`/stock/${stock.id}`),
      );
      await push(`/stock/${opened.first.id}`);
    } catch (problem) {
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path, f.message]));
      if (known.length === 0) notice.fail(problem);
    }
  }
</script>

{#if opening}
  <section aria-label="The next cut">
    <h2>The next cut</h2>
    <p>
      <strong>{shop.words(opening.words)}</strong>
      {#if !opening.sure}A straightedge reads no nearer: either way may be right.{/if}
    </p>
    <p class="soft">
      It lies <span class="mono">{shop.say(opening.from_face_mm, "length")}</span> from the marked
      face; {opening.pieces}
      {opening.pieces === 1 ? "slice" : "slices"} to come of this piece.
      {#each plan.siblings as part (part.id)}
        Its other part is <a href="#/stock/{part.id}">{part.label}</a>.
      {/each}
    </p>
    <details>
      <summary>It is cut: how do both parts lie?</summary>
      <div class="fields">
        <QuantityField
          label="Cut at, from the marked face"
          kind="length"
          value={place}
          error={faults.from_face_mm ?? ""}
          onvalue={(v) => (at = v)}
        />
        <QuantityField
          label="Bow of the part with the marked face"
          kind="thin"
          help="Straightedge and feeler, in the middle; under 0 where that side is the round one."
          value={first}
          error={faults.first_bow_mm ?? ""}
          onvalue={(v) => (first = v)}
        />
        <QuantityField
          label="Bow of the other part"
          kind="thin"
          value={second}
          error={faults.second_bow_mm ?? ""}
          onvalue={(v) => (second = v)}
        />
      </div>
      <Action main onclick={() => void open()}>Keep both parts</Action>
    </details>
  </section>
{/if}

<style>
  .fields {
    padding: var(--s3) 0;
  }
</style>
