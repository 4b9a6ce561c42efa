<script lang="ts">
  import { shop } from "../../../lib/shop.svelte";
  import { ask, client, wordsOf } from "../../../api/client";
  import type { TyreVerdict } from "../../../api/schema";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Tool from "./Tool.svelte";
  import type { Said } from "../../../lib/figures/units";

  interface Props {
    saw_id: number;
  }
  const { saw_id }: Props = $props();

  let gaps = $state<Record<"front" | "middle" | "back", number | null>>({
    front: null,
    middle: 0,
    back: null,
  });
  let verdict = $state<TyreVerdict | null>(null);
  let fault = $state<Said>("");
  const PLACES = ["front", "middle", "back"] as const;

  async function look(): Promise<void> {
    const params = { path: { saw_id } };
    const body = {
      front_gap_mm: gaps.front ?? 0,
      middle_gap_mm: gaps.middle ?? 0,
      back_gap_mm: gaps.back ?? 0,
    };
    try {
      verdict = await ask(client.POST("/api/saws/{saw_id}/tyre", { params, body }));
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<p>First the tyre: a short straightedge across its face, the light under it at three places.</p>
<Tool label="What tyre it is" {fault}>
  {#each PLACES as place (place)}
    <QuantityField
      label="Light at the {place}"
      kind="thin"
      value={gaps[place]}
      onvalue={(v) => (gaps = { ...gaps, [place]: v })}
    />
  {/each}
  <Action disabled={gaps.front === null || gaps.back === null} onclick={() => void look()}
    >What tyre is it?</Action
  >
  {#snippet found()}
    {#if verdict}<p><strong>{shop.words(verdict.words)}</strong></p>{/if}
  {/snippet}
</Tool>
