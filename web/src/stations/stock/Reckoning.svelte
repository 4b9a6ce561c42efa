<script lang="ts">
  import type { StockAnswer } from "../../api/schema";
  import { currentJob } from "../../lib/currentJob.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import type { Reckoned } from "./stock";

  interface Props {
    stock: StockAnswer;
    asked: Reckoned;
    onchange: (changed: Partial<Reckoned>) => void;
  }
  const { stock, asked, onchange }: Props = $props();
</script>

<details class="no-print">
  <summary>What it is reckoned with</summary>
  <div class="fields">
    {#if stock.kind === "billet"}
      <QuantityField
        label="Clean-up, each face"
        kind="thin"
        value={asked.clean_up_per_face_mm}
        onvalue={(v) => onchange({ clean_up_per_face_mm: v ?? 0 })}
      />
      <QuantityField
        label="Kerf of the crosscut"
        kind="thin"
        value={asked.crosscut_kerf_mm}
        onvalue={(v) => onchange({ crosscut_kerf_mm: v ?? 0 })}
      />
      <QuantityField
        label="Joint, off each edge"
        kind="thin"
        value={asked.joint_loss_mm}
        onvalue={(v) => onchange({ joint_loss_mm: v ?? 0 })}
      />
      <QuantityField
        label="Or bought this thick, and planed"
        kind="length"
        value={asked.bought_mm}
        onvalue={(v) => onchange({ bought_mm: v })}
      />
    {:else}
      <QuantityField
        label="Boards this thick"
        kind="length"
        value={asked.board_mm ?? currentJob.draft.slice_mm}
        onvalue={(v) => onchange({ board_mm: v })}
      />
      <QuantityField
        label="A cant this thick"
        kind="length"
        help="Empty: the one that gives most."
        value={asked.cant_mm}
        onvalue={(v) => onchange({ cant_mm: v })}
      />
    {/if}
    <QuantityField
      label="Trim, each end"
      kind="length"
      value={asked.trim_mm}
      onvalue={(v) => onchange({ trim_mm: v ?? 0 })}
    />
  </div>
</details>

<style>
  .fields {
    padding: var(--s3) 0;
  }
</style>
