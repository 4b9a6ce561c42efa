<script lang="ts">
  import { ask, client, Problem } from "../../api/client";
  import type { TyreVerdict } from "../../api/schema";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/QuantityField.svelte";

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
  let fault = $state("");
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
      fault = problem instanceof Problem ? problem.message : String(problem);
    }
  }
</script>

<div class="tyre">
  <p>First the tyre: a short straightedge across its face, the light under it at three places.</p>
  <div class="line">
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
  </div>
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  {#if verdict}<p aria-live="polite"><strong>{verdict.words}</strong></p>{/if}
</div>

<style>
  .tyre {
    padding-bottom: var(--s3);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
  }
  .fault {
    color: var(--vermilion);
  }
</style>
