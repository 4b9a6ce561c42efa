<script lang="ts">
  import { ask, client } from "../../api/client";
  import { session } from "../../lib/session.svelte";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { duration } from "../../lib/figures/units";
  import Action from "../Action.svelte";

  const ahead = $derived(shop.settings?.clock_ahead_s ?? 0);
  const behind = $derived(shop.settings?.clock_behind_s ?? 0);
  const SAID = {
    right: "The clock is taken as right.",
    wrong: "Times go on from the latest record. Set this machine’s clock, then look here again.",
    set_right: "The shop’s clock is set right.",
  };

  async function say(said: keyof typeof SAID): Promise<void> {
    const { moved } = await ask(client.POST("/api/clock", { body: { said } }));
    await shop.load();
    const told = moved > 0 ? ` ${moved} records moved back with it.` : "";
    notice.say(SAID[said] + told);
  }
</script>

{#if ahead > 0}
  <div class="clock no-print" role="alert">
    <p>
      This machine’s clock is {duration(ahead)} past the shop’s latest record. Is it right?
    </p>
    {#if session.owns}
      <Action onclick={() => void say("right")}>It is right</Action>
      <Action onclick={() => void say("wrong")}>It is wrong</Action>
    {/if}
  </div>
{:else if behind > 0}
  <div class="clock no-print" role="alert">
    <p>
      This machine’s clock is {duration(behind)} behind the shop’s latest record. Times go on from that
      record.
    </p>
    {#if session.owns}
      <Action onclick={() => void say("set_right")}>The clock is right now: move the records</Action
      >
    {/if}
  </div>
{/if}

<style>
  .clock {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: center;
    padding: var(--s2) var(--s3);
    border-top: var(--rule) solid var(--brass);
    font-weight: 650;
  }
</style>
