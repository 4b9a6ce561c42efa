<script lang="ts">
  import { session } from "../../lib/session.svelte";
  import { outbox } from "../../lib/sending/outbox.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { wordsOf } from "../../api/client";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";

  let failed = $state<Said>("");
  const MAY = {
    anyone: "what everybody does",
    authorised: "what is reserved",
    owner: "everything",
  };

  async function leave(): Promise<void> {
    failed = "";
    try {
      await session.leave();
    } catch (problem) {
      failed = wordsOf(problem);
    }
  }
</script>

<h1>This device</h1>
{#if session.state?.here === "network"}
  <p>
    {session.state.name || "A device"} joined this shop over its network. It may do {MAY[
      session.state.role
    ]}.
  </p>
  {#if outbox.count > 0}
    <p role="alert">
      {outbox.count} written down here {outbox.count === 1 ? "is" : "are"} not sent yet. Send
      {outbox.count === 1 ? "it" : "them"} first: <a href="#/waiting">Waiting</a>.
    </p>
  {/if}
  {#if failed}<p role="alert">{shop.words(failed)}</p>{/if}
  <p>Leaving takes all of the shop off this device. It joins again by a code.</p>
  <Action onclick={() => void leave()}>Leave the shop</Action>
{:else}
  <p>This is the shop’s own machine: it stays.</p>
{/if}
