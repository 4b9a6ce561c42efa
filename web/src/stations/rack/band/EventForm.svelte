<script lang="ts">
  import Who from "../../../parts/fields/Who.svelte";
  import { onDestroy } from "svelte";

  import { wordsOf } from "../../../api/client";
  import type { BandEventInput, SharpenedFacts } from "../../../api/schema";
  import { choicesOf, fieldsOf } from "../../../lib/forms";
  import { shop } from "../../../lib/shop.svelte";
  import { Edit } from "../../../lib/edit.svelte";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import type { Said } from "../../../lib/figures/units";

  interface Props {
    band: { id: number; label: string };
    onrecord: (event: BandEventInput) => Promise<void>;
  }
  const { band, onrecord }: Props = $props();

  interface Draft {
    kind: BandEventInput["kind"] | null;
    detail: string;
    value: number | null;
    who: string;
    minutes: number | null;
    cost: number | null;
    way: SharpenedFacts["way"];
    ground: SharpenedFacts["ground"];
    angle_deg: number | null;
    set_after_mm: number | null;
    teeth_lost: number | null;
  }
  const BLANK: Draft = {
    kind: null,
    detail: "",
    value: null,
    who: "",
    minutes: null,
    cost: null,
    way: null,
    ground: null,
    angle_deg: null,
    set_after_mm: null,
    teeth_lost: null,
  };
  /** Kept for its band until it is recorded or another kind is chosen. */
  function begun(): Edit<Draft> {
    const title = `A record of band ${band.label}`;
    return new Edit({ key: `event.${band.id}`, title, href: `#/rack/${band.id}` }, BLANK, 0);
  }
  let edit = $state.raw(begun());
  onDestroy(() => edit.left());
  const { kind, detail, value, who } = $derived(edit.draft);
  let box = $state<HTMLElement>();

  /** Opens the form for a kind, as if it had been tapped. */
  export function open(chosen: NonNullable<Draft["kind"]>): void {
    edit.set({ ...BLANK, kind: chosen });
    box?.scrollIntoView({ block: "center" });
  }

  function sharpened(): Partial<BandEventInput> {
    if (kind !== "sharpened") return {};
    const { minutes, cost, way, ground, angle_deg, set_after_mm, teeth_lost } = edit.draft;
    const how = { way, ground, angle_deg, set_after_mm, teeth_lost: teeth_lost ?? 0 };
    return { minutes, cost, sharpened: how };
  }
  let fault = $state<Said>("");

  async function save(): Promise<void> {
    if (!kind) return;
    try {
      await onrecord({ kind, detail, value, who, ...sharpened() });
      edit.discard();
      edit = begun();
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<section class="no-print" aria-label="What happened to it" bind:this={box}>
  <div class="kinds" role="group" aria-label="What happened">
    {#each choicesOf<BandEventInput["kind"]>("event") as { key, name } (key)}
      <button
        type="button"
        aria-pressed={kind === key}
        onclick={() => edit.set({ ...BLANK, kind: kind === key ? null : key })}>{name}</button
      >
    {/each}
  </div>
  {#if kind}
    <div class="form">
      {#if kind === "scrapped"}
        <label>
          Why
          <select value={detail} onchange={(e) => edit.set({ detail: e.currentTarget.value })}>
            <option value="" disabled>choose</option>
            {#each shop.reference?.scrap_reasons ?? [] as reason (reason)}<option value={reason}
                >{reason}</option
              >{/each}
          </select>
        </label>
      {:else if kind === "mended"}
        <label>
          What was mended
          <select value={detail} onchange={(e) => edit.set({ detail: e.currentTarget.value })}>
            <option value="">all of it</option>
            <option value="crack">the crack, cut out and welded</option>
            <option value="kink">the kink, straightened</option>
            <option value="weld_stepped">the weld, ground flush</option>
            <option value="teeth_lost">the teeth, ground anew</option>
          </select>
        </label>
      {:else}
        <label
          >{kind === "edge_judged" ? "Why it is judged so" : "Detail"}<input
            value={detail}
            oninput={(e) => edit.set({ detail: e.currentTarget.value })}
          /></label
        >
      {/if}
      {#if kind === "measured_set"}
        <QuantityField
          label="Set per side"
          kind="thin"
          usual="set_per_side_mm"
          {value}
          onvalue={(v) => edit.set({ value: v })}
        />
      {:else if kind === "teeth_lost"}
        <QuantityField
          label="How many teeth"
          kind="plain"
          {value}
          onvalue={(v) => edit.set({ value: v })}
        />
      {:else if kind === "edge_judged" || kind === "sharpened"}
        <QuantityField
          label={kind === "sharpened"
            ? "How dull it was, 0 keen to 1 at its limit"
            : "Dullness, 0 keen to 1 at its limit"}
          help={kind === "sharpened"
            ? "From 0.7 its life counts as worn out; empty, only if its last runs showed signs."
            : ""}
          kind="plain"
          {value}
          onvalue={(v) => edit.set({ value: v })}
        />
      {/if}
      {#if kind === "sharpened"}
        <label>
          How
          <select
            value={edit.draft.way ?? ""}
            onchange={(e) =>
              edit.set({ way: (e.currentTarget.value || null) as SharpenedFacts["way"] })}
          >
            <option value="">–</option>
            {#each choicesOf("sharpened_by") as way (way.key)}
              <option value={way.key}>{way.name}</option>
            {/each}
          </select>
        </label>
        <label>
          Ground
          <select
            value={edit.draft.ground ?? ""}
            onchange={(e) =>
              edit.set({ ground: (e.currentTarget.value || null) as SharpenedFacts["ground"] })}
          >
            <option value="">–</option>
            <option value="face">the face</option>
            <option value="gullet">the gullet</option>
            <option value="both">both</option>
          </select>
        </label>
        {#each fieldsOf<"minutes" | "cost" | "angle_deg" | "set_after_mm" | "teeth_lost">("events") as n (n.key)}
          <QuantityField
            label={n.label}
            kind={n.kind}
            value={edit.draft[n.key]}
            onvalue={(v) => edit.set({ [n.key]: v })}
          />
        {/each}
      {/if}
      <Who value={who} onpick={(name) => edit.set({ who: name })} />
      <Action main onclick={() => void save()}>Record</Action>
    </div>
    {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {/if}
</section>

<style>
  section {
    padding-top: var(--s4);
  }
  .kinds,
  .form {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: end;
  }
  .kinds button {
    min-height: var(--touch);
    border-bottom: var(--rule) solid var(--hairline);
    font-weight: 600;
  }
  .kinds button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-bottom-color: var(--jade);
  }
  .form {
    padding-top: var(--s3);
  }
  input,
  select {
    min-width: 14rem;
  }
</style>
