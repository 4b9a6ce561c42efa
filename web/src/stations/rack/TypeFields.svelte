<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import type { Said } from "../../lib/figures/units";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import { isContinuous, type TypeDraft } from "./types";

  interface Props {
    draft: TypeDraft;
    /** What is asked at first, the rest, or all of it. */
    part?: "first" | "rest" | "all";
    /** Whether a thickness left empty is taken from the width. */
    thicknessMayWait?: boolean;
    /** Fault by field. */
    faults: Readonly<Record<string, Said>>;
    set: (field: keyof TypeDraft, value: string | number | null) => void;
  }
  const { draft, part = "all", faults, set, thicknessMayWait = false }: Props = $props();
  const continuous = $derived(isContinuous(draft.form));
</script>

{#if part !== "rest"}
  <QuantityField
    label="Width"
    term="width"
    kind="length"
    usual="width_mm"
    value={draft.width_mm as number | null}
    error={faults.width_mm ?? ""}
    help="Tooth tips to back edge."
    onvalue={(v) => set("width_mm", v)}
  />
  {#if !continuous}
    <QuantityField
      label="Teeth per inch"
      term="tpi"
      kind="plain"
      usual="tpi"
      value={draft.tpi_lo as number | null}
      error={faults.tpi_lo ?? ""}
      help="The coarser figure when it varies."
      onvalue={(v) => set("tpi_lo", v)}
    />
    <QuantityField
      label="… to, when it varies"
      kind="plain"
      usual="tpi"
      value={draft.tpi_hi as number | null}
      error={faults.tpi_hi ?? ""}
      help="Leave empty for a constant pitch."
      onvalue={(v) => set("tpi_hi", v)}
    />
  {/if}
  <label class="pick">
    Steel
    <select value={draft.steel} onchange={(e) => set("steel", e.currentTarget.value)}>
      {#each shop.reference?.steels ?? [] as steel (steel.key)}<option value={steel.key}
          >{steel.name}</option
        >{/each}
    </select>
  </label>
{/if}
{#if part !== "first"}
  <QuantityField
    label="Thickness"
    term="thickness"
    kind="thin"
    usual="thickness_mm"
    value={draft.thickness_mm as number | null}
    error={faults.thickness_mm ?? ""}
    help={thicknessMayWait
      ? "Of the body, not across the set. Leave empty to take what is usual for its width."
      : "Of the body, not across the set."}
    onvalue={(v) => set("thickness_mm", v)}
  />
  <label class="pick">
    Tooth form
    <select value={draft.form} onchange={(e) => set("form", e.currentTarget.value)}>
      {#each shop.reference?.forms ?? [] as form (form.key)}<option value={form.key}
          >{form.name}</option
        >{/each}
    </select>
  </label>
  <QuantityField
    label="Set per side, measured"
    term="set"
    kind="thin"
    usual="set_per_side_mm"
    value={draft.set_per_side_mm as number | null}
    error={faults.set_per_side_mm ?? ""}
    help="Leave empty to take it from the table."
    onvalue={(v) => set("set_per_side_mm", v)}
  />
{/if}

<style>
  .pick {
    display: grid;
    gap: var(--s1);
    align-content: start;
    font-weight: 600;
  }
  select {
    font-size: var(--text-large);
    width: 100%;
  }
</style>
