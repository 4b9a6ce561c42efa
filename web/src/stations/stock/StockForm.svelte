<script lang="ts">
  import { onDestroy } from "svelte";

  import { ask, client, Problem } from "../../api/client";
  import type { StockAnswer, StockEdit, StockInput } from "../../api/schema";
  import { choicesOf } from "../../lib/forms";
  import { Edit } from "../../lib/edit.svelte";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import type { Kind, Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Choices from "../../parts/fields/Choices.svelte";
  import EditState from "../../parts/EditState.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import { FIELDS, type StockDraft } from "./stock";

  interface Props {
    /** The piece to change; null for a new one of a kind. */
    piece: StockAnswer | null;
    kind: "billet" | "log";
    /** Called once saved, or left (null). */
    onsaved: (saved: StockAnswer | null) => void;
  }
  const { piece, kind, onsaved }: Props = $props();

  function record(): StockDraft {
    if (piece) return Object.fromEntries(FIELDS.map((f) => [f, piece[f]])) as unknown as StockDraft;
    return {
      kind,
      label: "",
      material: currentJob.draft.material,
      thickness_mm: null,
      height_mm: null,
      length_mm: 0,
      small_end_mm: null,
      bark_mm: null,
      bow_mm: 0,
      twist_mm: 0,
      moisture_pct: null,
      trued: "none",
      reactive: false,
      suspect: "none",
      price: null,
      place: "",
      note: "",
    };
  }
  function begun(): Edit<StockDraft> {
    const place = {
      key: `stock.${piece?.id ?? `new.${kind}`}`,
      title: piece?.label ?? `A ${kind}`,
      href: piece ? `#/stock/${piece.id}` : "#/stock",
    };
    return new Edit<StockDraft>(place, record(), piece?.version ?? 0);
  }
  const edit = begun();
  onDestroy(() => edit.left());
  const draft = $derived(edit.draft);
  let faults = $state<Record<string, Said>>({});

  const SIZES: readonly [keyof StockDraft, string, Kind, string][] = $derived(
    kind === "log"
      ? [
          ["small_end_mm", "Small end, across", "length", "With its bark, at the thinner end."],
          ["bark_mm", "Bark", "thin", ""],
          ["length_mm", "Length", "length", ""],
        ]
      : [
          ["thickness_mm", "Thickness", "length", ""],
          ["height_mm", "Height on the table", "length", ""],
          ["length_mm", "Length", "length", ""],
          [
            "bow_mm",
            "Bow",
            "thin",
            "In the middle, over its whole length; under 0 where the marked face is the round one.",
          ],
          ["twist_mm", "Twist", "thin", "How far a corner lifts when three lie."],
        ],
  );

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const body = draft as unknown as StockInput;
    try {
      const saved = await edit.save((changes) => {
        if (piece === null) return ask(client.POST("/api/stock", { body }));
        const params = { path: { stock_id: piece.id } };
        return ask(client.PATCH("/api/stock/{stock_id}", { params, body: changes as StockEdit }));
      });
      if (saved) onsaved(saved);
    } catch (problem) {
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path.split(".").at(-1) ?? "", f.message]));
      if (!known.some((f) => f.path in draft)) notice.fail(problem);
    }
  }
</script>

<form onsubmit={(e) => void save(e)}>
  <EditState {edit} />
  <div class="fields">
    <label
      >Label
      <input
        value={draft.label}
        autocomplete="off"
        aria-invalid={faults.label ? "true" : undefined}
        oninput={(e) => edit.set({ label: e.currentTarget.value })}
      />
      {#if faults.label}<span class="fault" role="alert">{shop.words(faults.label)}</span>{/if}
    </label>
    <label
      >Wood or other stock
      <select
        value={draft.material}
        onchange={(e) => edit.set({ material: e.currentTarget.value })}
      >
        {#each shop.reference?.materials ?? [] as m (m.key)}
          <option value={m.key}>{m.name}</option>
        {/each}
      </select>
    </label>
    {#each SIZES as [field, label, unit, help] (field)}
      <QuantityField
        {label}
        kind={unit}
        {help}
        value={draft[field] === 0 && field === "length_mm" ? null : (draft[field] as number | null)}
        error={faults[field] ?? ""}
        onvalue={(v) =>
          edit.set({ [field]: v ?? (["thickness_mm", "bark_mm"].includes(field) ? null : 0) })}
      />
    {/each}
    <QuantityField
      label="Moisture, %"
      kind="plain"
      help="By a meter; it is dated today. Empty where nobody measured."
      value={draft.moisture_pct}
      error={faults.moisture_pct ?? ""}
      onvalue={(v) => edit.set({ moisture_pct: v })}
    />
    <QuantityField
      label="Price"
      kind="plain"
      help="Of the whole piece."
      value={draft.price}
      error={faults.price ?? ""}
      onvalue={(v) => edit.set({ price: v })}
    />
    <label
      >Place
      <input
        value={draft.place}
        autocomplete="off"
        oninput={(e) => edit.set({ place: e.currentTarget.value })}
      /></label
    >
  </div>
  <div class="fields">
    {#if kind === "billet"}
      <Choices
        legend="True already"
        options={choicesOf<StockDraft["trued"]>("trued")}
        chosen={draft.trued}
        onchoose={(trued) => edit.set({ trued })}
      />
    {/if}
    <Choices
      legend="Suspected in it"
      options={choicesOf<StockDraft["suspect"]>("suspect")}
      chosen={draft.suspect}
      onchoose={(suspect) => edit.set({ suspect })}
    />
    <div>
      {#if kind === "billet"}
        <label class="tick"
          ><input
            type="checkbox"
            checked={draft.reactive}
            onchange={(e) => edit.set({ reactive: e.currentTarget.checked })}
          /> It may move when it is opened: green, stressed, near the heart</label
        >
      {/if}
      <label
        >Note
        <input
          value={draft.note}
          autocomplete="off"
          oninput={(e) => edit.set({ note: e.currentTarget.value })}
        /></label
      >
    </div>
  </div>
  <div class="actions">
    <Action main type="submit">{piece ? "Save it" : `Put the ${kind} on the rack`}</Action>
    <Action
      onclick={() => {
        edit.discard();
        onsaved(null);
      }}>Cancel</Action
    >
  </div>
</form>

<style>
  form {
    border-top: var(--rule) solid var(--ink);
    padding: var(--s3) 0 var(--s5);
  }
  .fields {
    padding-bottom: var(--s4);
    align-items: start;
  }
  input,
  select {
    font-size: var(--text-large);
    width: 100%;
    min-width: 0;
  }
  .tick {
    display: flex;
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
    font-weight: 600;
  }
  .tick input {
    width: 1.5rem;
    height: 1.5rem;
    flex: none;
    accent-color: var(--jade);
  }
</style>
