<script lang="ts">
  import { ask, client, wordsOf } from "../../../api/client";
  import type { GuideCard, Shims } from "../../../api/schema";
  import { recall, remember } from "../../../lib/storage";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Tool from "./Tool.svelte";
  import type { Said } from "../../../lib/figures/units";

  interface Props {
    guides: GuideCard;
  }
  const { guides }: Props = $props();

  let stack = $state<number | null>(recall<number | null>("slips.stack", 1.0));
  let sides = $state<Shims | null>(null);
  let thrust = $state<Shims | null>(null);
  let fault = $state<Said>("");

  async function count(): Promise<void> {
    if (stack === null) return;
    const stack_mm = stack;
    remember("slips.stack", stack_mm);
    const slips = (gap_mm: number) =>
      ask(client.POST("/api/shims", { body: { gap_mm, stack_mm } }));
    try {
      sides = guides.side_gap_mm === null ? null : await slips(guides.side_gap_mm);
      thrust = await slips(guides.thrust_gap_mm);
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<Tool label="Slips that make the gaps" {fault}>
  <QuantityField
    label="A stack of ten of this card or foil measures"
    kind="thin"
    value={stack}
    help="Ten together, so that the caliper tells."
    onvalue={(v) => (stack = v)}
  />
  <Action disabled={stack === null} onclick={() => void count()}>How many make the gap?</Action>
  {#snippet found()}
    {#if thrust}
      <p>
        {#if sides && guides.side_gap_mm !== null}
          Sides, {shop.say(guides.side_gap_mm, "thin")}: <strong>{shop.words(sides.words)}</strong>
        {/if}
        Thrust, {shop.say(guides.thrust_gap_mm, "thin")}:
        <strong>{shop.words(thrust.words)}</strong>
      </p>
    {/if}
  {/snippet}</Tool
>
