<script lang="ts">
  import { shop } from "../../../lib/shop.svelte";
  import { ask, client, wordsOf } from "../../../api/client";
  import type { SetupAnswer, TrackAdvice } from "../../../api/schema";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Tool from "./Tool.svelte";
  import type { SetupState } from "../setup.svelte";
  import type { Said } from "../../../lib/figures/units";

  interface Props {
    card: SetupState;
    setup: SetupAnswer;
    step: string;
  }
  const { card, setup, step }: Props = $props();

  let position = $state<number | null>(null);
  let creep = $state<number | null>(0);
  let turns = $state(10);
  let advice = $state<TrackAdvice | null>(null);
  let fault = $state<Said>("");

  async function look(): Promise<void> {
    const params = { path: { setup_id: setup.id } };
    const body = { position_mm: position ?? 0, creep_mm: creep ?? 0, turns };
    try {
      advice = await ask(client.POST("/api/setups/{setup_id}/track", { params, body }));
      fault = "";
      card.setFigure(step, "left", "position_mm", position);
      if (step === "fine_track") card.setFigure(step, "left", "creep_mm", creep);
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<Tool label="Which way to turn the knob" {fault}>
  <QuantityField
    label="Stands off its place"
    kind="thin"
    value={position}
    help="Forward, towards you, is positive."
    onvalue={(v) => (position = v)}
  />
  <QuantityField
    label="Crept"
    kind="thin"
    value={creep}
    help="Forward positive."
    onvalue={(v) => (creep = v)}
  />
  <QuantityField
    label="In how many turns"
    kind="plain"
    value={turns}
    required
    onvalue={(v) => (turns = v ?? 10)}
  />
  <Action disabled={position === null} onclick={() => void look()}>Which way?</Action>
  {#snippet found()}
    {#if advice}<p class="advice">{shop.words(advice.words)}</p>{/if}
    {#if setup.fittings.knob === "unknown"}
      <p class="soft">
        Which way this saw’s knob moves the band is not recorded:
        <a href="#/shop/saws/{setup.saw_id}/stand">note it</a> once seen.
      </p>
    {/if}
  {/snippet}</Tool
>
