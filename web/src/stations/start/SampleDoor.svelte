<script lang="ts">
  import { onDestroy } from "svelte";

  import { ask, client } from "../../api/client";
  import type { SampleAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { backToShop, looksRound, lookRound } from "../../lib/sampleMode";
  import Action from "../../parts/Action.svelte";

  const LOOK_EVERY_MS = 1000;
  let sample = $state<SampleAnswer | null>(null);
  let waited = $state(0);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let left = false;
  const share = $derived(sample ? Math.min(waited / sample.usual_s, 0.98) : 0);

  async function look(): Promise<void> {
    sample = await ask(client.GET("/api/sample-yard"));
  }
  if (!looksRound) look().catch(() => undefined);

  /** Makes it where it is not there yet, waits, and goes in; going elsewhere meanwhile is fine. */
  async function enter(): Promise<void> {
    try {
      sample = await ask(client.POST("/api/sample-yard"));
      while (sample.state === "making" && !left) {
        await new Promise((done) => (timer = setTimeout(done, LOOK_EVERY_MS)));
        waited += LOOK_EVERY_MS / 1000;
        await look();
      }
      if (sample.state === "ready" && !left) lookRound();
    } catch (problem) {
      notice.fail(problem);
    }
  }
  onDestroy(() => {
    left = true;
    clearTimeout(timer);
  });
</script>

{#if looksRound}
  <p>You are in it.</p>
  <Action onclick={backToShop}>Back to my shop</Action>
{:else}
  <p>
    A boatyard with two years of records. It is a copy: nothing in it is yours, and nothing is kept.
  </p>
  {#if sample?.state === "making"}
    <p role="status">Making it, about {sample.usual_s} seconds …</p>
    <progress value={share} aria-label="How far the sample yard is"></progress>
  {:else}
    {#if sample?.state === "failed"}<p role="alert">{sample.words}</p>{/if}
    <Action onclick={() => void enter()}>Look round</Action>
  {/if}
{/if}

<style>
  progress {
    width: 100%;
    max-width: 16rem;
    height: 0.5rem;
  }
</style>
