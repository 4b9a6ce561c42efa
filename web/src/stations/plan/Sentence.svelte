<script lang="ts">
  import { tick } from "svelte";

  import type { FaultBody } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob, type Draft } from "../../lib/currentJob.svelte";
  import Choices from "../../parts/fields/Choices.svelte";
  import MaterialFinder from "../../parts/fields/MaterialFinder.svelte";
  import QuantityPad from "../../parts/fields/QuantityPad.svelte";
  import RuleOverrides from "./RuleOverrides.svelte";
  import {
    isFolded,
    operations,
    partOf,
    saysItself,
    sentenceOf,
    unsaid,
    type Bit,
    type CountField,
    type Part,
    type QuantityField,
  } from "./sentences";
  import type { Said } from "../../lib/figures/units";

  interface Props {
    /** Faults of the last answer, shown in the part they belong to. */
    faults: readonly FaultBody[];
    /** House rules that can matter for the job, once that is known. */
    rules?: readonly string[] | null;
  }
  const { faults, rules = null }: Props = $props();

  let open = $state<number | null>(null);
  let panel = $state<HTMLElement>();
  let heading = $state<HTMLElement>();
  const draft = $derived(currentJob.draft);
  const all = $derived<readonly Bit[]>(sentenceOf(draft.operation)?.parts ?? []);
  /** Everything the sentence can say, or only what is not as usual. */
  let whole = $state(false);
  const bits = $derived(
    all.filter((bit) => whole || !isFolded(bit) || faulty(bit.part) || saysItself(bit, draft)),
  );
  /** The draft as it was when the part that is open was opened. */
  let before: Draft | null = null;
  const finishes = $derived(shop.reference?.finishes ?? {});
  const current = $derived(open === null ? null : partOf(bits[open]));
  const words = $derived(bits.map((bit) => said(bit)));
  const overrides = $derived(Object.keys(draft.rules).length);

  function valueOf(part: Part): number | null {
    const value = draft[part.field as QuantityField];
    return value === 0 && part.absent ? null : value;
  }

  function said(bit: Bit): string {
    const part = partOf(bit);
    return part ? wordsOf(part) : "";
  }

  function wordsOf(part: Part): string {
    switch (part.part) {
      case "quantity": {
        const value = valueOf(part);
        if (value === null) return part.absent || "?";
        return shop.say(value * (part.times ?? 1), part.kind || "plain");
      }
      case "count":
        return String(draft[part.field as CountField]);
      case "operation":
        return sentenceOf(draft.operation)?.name ?? draft.operation;
      case "material":
        return shop.materialName(draft.material);
      case "finish":
        return finishes[draft.finish] ?? draft.finish;
      case "saw":
        return shop.saw(draft.saw_id)?.saw.name ?? "saw?";
      case "grain":
        return draft.stood_on_end ? "stood on its end" : "lying along the table";
      case "round":
        return draft.round_stock ? "round" : "flat or square";
      case "last_face":
        return draft.last_face_sawn ? "the last face sawn too" : "the last face left as it is";
      case "rules":
        return overrides === 0 ? "house rules" : `house rules, ${overrides} changed`;
      default:
        return "";
    }
  }

  function faulty(part: Part): Said {
    return faults.find((f) => f.path.split(".").at(-1) === part.field)?.message ?? "";
  }

  async function show(i: number): Promise<void> {
    open = open === i ? null : i;
    before = draft;
    await tick();
    const target =
      panel?.querySelector<HTMLElement>("input:checked") ??
      panel?.querySelector<HTMLElement>("input, select");
    target?.focus();
    if (target instanceof HTMLInputElement && target.type === "text") target.select();
  }

  async function close(): Promise<void> {
    const field = current?.key;
    open = null;
    await tick();
    heading?.querySelector<HTMLElement>(`[data-part="${field}"]`)?.focus();
  }

  /** Leaves all as it was. */
  function leave(): void {
    if (before && before !== draft) set(before);
    void close();
  }

  function keyed(event: KeyboardEvent): void {
    if (event.key === "Escape") leave();
    else if (event.key === "Enter" && event.target instanceof HTMLInputElement) {
      // The part that takes the focus is not to be opened again by the same key.
      event.preventDefault();
      void close();
    }
  }

  /** The whole sentence, or the short one; the focus stays with the button. */
  function unfold(): void {
    open = null;
    whole = !whole;
  }

  function scaled(value: number | null, times: number): number | null {
    return value === null ? null : value * times;
  }

  /** What a cleared field is: none for most, nothing under the sheet for a backing. */
  function emptyOf(field: string): number | null {
    return field === "backing_mm" ? 0 : null;
  }

  function set(change: Partial<Draft>): void {
    currentJob.change(change);
  }
</script>

<div class="sentence">
  <h1 bind:this={heading}>
    {#each bits as bit, i (i)}{@const part = partOf(bit)}{#if !part}{bit}{:else}{isFolded(bit)
          ? bit.lead
          : ""}<button
          type="button"
          class="part"
          data-part={part.key}
          aria-expanded={open === i}
          data-bad={faulty(part) !== ""}
          onclick={() => void show(i)}>{words[i]}</button
        >{isFolded(bit) ? bit.tail : ""}{/if}{/each}
    <button type="button" class="more" aria-expanded={whole} onclick={unfold}
      >{whole ? "less" : "more"}</button
    >
  </h1>
  {#each current ? [current] : [] as shown (shown.key)}
    <!-- Escape leaves all as it was; either way the focus goes back into the sentence. -->
    <div
      class="panel"
      role="dialog"
      tabindex="-1"
      aria-label="Change this part of the sentence"
      bind:this={panel}
      onkeydown={keyed}
    >
      {#if shown.part === "quantity"}
        <QuantityPad
          label={shown.label}
          help={shown.help}
          kind={shown.kind || "plain"}
          usual={shown.field}
          value={scaled(valueOf(shown), shown.times ?? 1)}
          start={shown.start}
          error={faulty(shown)}
          onvalue={(v) =>
            set({
              [shown.field]: scaled(v, 1 / (shown.times ?? 1)) ?? emptyOf(shown.field),
            })}
        />
      {:else if shown.part === "count"}
        <QuantityPad
          label={shown.label}
          kind="plain"
          help={shown.help}
          usual={shown.field}
          value={draft[shown.field as CountField]}
          error={faulty(shown)}
          onvalue={(v) => {
            if (v !== null) set({ [shown.field]: Math.max(1, Math.round(v)) });
          }}
        />
      {:else if shown.part === "operation"}
        <Choices
          legend="Operation"
          chosen={draft.operation}
          options={operations().map(({ key, name }) => ({ key, name }))}
          onchoose={(operation) => set({ operation, ...unsaid(operation) })}
        />
      {:else if shown.part === "material"}
        <MaterialFinder
          chosen={draft.material}
          onchoose={(material) => {
            set({ material });
            void close();
          }}
        />
      {:else if shown.part === "finish"}
        <Choices
          legend="The sawn face"
          chosen={draft.finish}
          options={Object.entries(finishes).map(([key, name]) => ({
            key: key as Draft["finish"],
            name,
          }))}
          onchoose={(finish) => set({ finish })}
        />
      {:else if shown.part === "saw"}
        <Choices
          legend="On which saw"
          chosen={draft.saw_id}
          options={shop.saws.map((s) => ({
            key: s.id,
            name: s.saw.name as string,
            note: s.mounted_label
              ? `${s.mounted_label} is on it, ${s.tension_state === "on" ? "under tension" : "slack"}`
              : "empty",
          }))}
          onchoose={(saw_id) => set({ saw_id, band_id: null })}
        />
      {:else if shown.part === "round"}
        <Choices
          legend="The stock"
          chosen={draft.round_stock ? 1 : 0}
          options={[
            { key: 0, name: "flat or square" },
            { key: 1, name: "round", note: "it turns under the teeth: only clamped or in a vee" },
          ]}
          onchoose={(round) => set({ round_stock: round === 1 })}
        />
      {:else if shown.part === "last_face"}
        <Choices
          legend="The last face"
          chosen={draft.last_face_sawn ? 1 : 0}
          options={[
            { key: 0, name: "left as it is", note: "the last piece keeps the billet’s own face" },
            { key: 1, name: "sawn too", note: "one cut more, and its kerf" },
          ]}
          onchoose={(sawn) => set({ last_face_sawn: sawn === 1 })}
        />
      {:else if shown.part === "grain"}
        <Choices
          legend="How the stock stands"
          chosen={draft.stood_on_end ? 1 : 0}
          options={[
            { key: 0, name: "lying along the table", note: "the band crosses the grain" },
            {
              key: 1,
              name: "stood on its end",
              note: "the band runs along the grain: it takes less power, and long shavings pack",
            },
          ]}
          onchoose={(end) => set({ stood_on_end: end === 1 })}
        />
      {:else if shown.part === "rules"}
        <RuleOverrides offered={rules} />
      {/if}
      <button type="button" class="done" onclick={() => void close()}>Done</button>
    </div>
  {/each}
</div>

<style>
  .sentence {
    position: relative;
  }
  h1 {
    max-width: 66rem;
  }
  .part {
    display: inline;
    padding: 0.1em 0 0.05em;
    background: none;
    border: 0;
    border-bottom: 2px dotted var(--jade);
    color: var(--jade);
    font-weight: 650;
    text-align: left;
    line-height: inherit;
  }
  .more {
    min-height: var(--touch);
    padding: 0 var(--s1);
    color: var(--ink-soft);
    font-size: var(--text);
    text-decoration: underline dotted;
    text-underline-offset: 0.3em;
  }
  .part:hover,
  .part[aria-expanded="true"] {
    background: var(--jade-pale);
  }
  .part[data-bad="true"] {
    color: var(--vermilion);
    border-bottom-color: var(--vermilion);
  }
  .panel {
    position: absolute;
    top: calc(100% + var(--s2));
    left: 0;
    z-index: 2;
    width: min(42rem, 100%);
    padding: var(--s4) var(--s5) var(--s3);
    background: var(--paper);
    border: var(--rule) solid var(--ink);
  }
  .done {
    min-height: var(--touch);
    min-width: var(--touch);
    margin-top: var(--s3);
    padding: 0 var(--s4);
    background: var(--jade);
    color: var(--on-jade);
    border: 0;
    font-weight: 650;
  }
  @media (pointer: coarse) {
    /* A finger's width each, whatever the line. */
    .part {
      display: inline-block;
      min-height: var(--touch);
      min-width: var(--touch);
    }
  }
  @media (max-width: 45em) {
    .panel {
      position: fixed;
      top: auto;
      bottom: 0;
      left: 0;
      width: 100%;
      max-height: 80vh;
      overflow-y: auto;
      z-index: 4;
    }
  }
</style>
