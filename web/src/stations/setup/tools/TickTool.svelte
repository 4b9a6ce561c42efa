<script lang="ts">
  import { shop } from "../../../lib/shop.svelte";
  import { ask, client, wordsOf } from "../../../api/client";
  import type { SetupAnswer, TickVerdict } from "../../../api/schema";
  import { significant, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Tool from "./Tool.svelte";

  interface Props {
    setup: SetupAnswer;
  }
  const { setup }: Props = $props();

  let ticks = $state<number | null>(null);
  let seconds = $state<number | null>(10);
  let verdict = $state<TickVerdict | null>(null);
  let fault = $state<Said>("");

  async function name(): Promise<void> {
    const params = { path: { setup_id: setup.id } };
    const body = { ticks: ticks ?? 0, seconds: seconds ?? 0 };
    try {
      verdict = await ask(client.POST("/api/setups/{setup_id}/tick", { params, body }));
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<Tool label="Name a tick by its rate" {fault}>
  <QuantityField label="Ticks heard" kind="plain" value={ticks} onvalue={(v) => (ticks = v)} />
  <QuantityField label="in seconds" kind="plain" value={seconds} onvalue={(v) => (seconds = v)} />
  <Action disabled={ticks === null || seconds === null} onclick={() => void name()}
    >What ticks?</Action
  >
  {#snippet found()}
    {#if verdict}
      <p><strong>{shop.words(verdict.words)}</strong></p>
      <p class="soft">
        At this speed: {verdict.turners
          .map((t) => `${t.name} ${significant(t.hertz, 3)} a second`)
          .join(", ")}.
      </p>
    {/if}
  {/snippet}</Tool
>
