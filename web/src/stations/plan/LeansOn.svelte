<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import type { PlanAnswer, SwayAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import type { PlanState } from "./plan.svelte";

  interface Props {
    plan: PlanState;
    answer: PlanAnswer;
  }
  const { plan, answer }: Props = $props();

  let open = $state(false);
  let found = $state<SwayAnswer | null>(null);

  // A new answer while this is open asks the server again what it leans on.
  $effect(() => {
    const question = plan.question();
    if (!open || !question || answer.best === null) return;
    plan
      .leansOn(question)
      .then((f) => (found = f ?? found))
      .catch((p: unknown) => notice.fail(p));
  });
  const price = (rule: string) => found?.prices.find((p) => p.rule === rule)?.words;
</script>

<details bind:open>
  <summary><h2>What the choice leans on: {answer.rules.length} house rules</h2></summary>
  {#if answer.best !== null}
    <h3>What would change it</h3>
    {#each found?.sways ?? [] as sway (sway.words)}
      <p class="line">{shop.words(sway.words)}</p>
    {:else}
      <p class="line soft">
        {found
          ? "Nothing within a quarter of its height, radius, frame or motor."
          : "Working it out …"}
      </p>
    {/each}
    <h3>House rules at work</h3>
  {/if}
  {#each answer.rules as rule (rule.rule)}
    <p class="line">
      {shop.words(rule.why)}{#if price(rule.rule)}<span class="soft"
          >&#32;Here: {price(rule.rule)}.</span
        >{/if}
    </p>
  {/each}
</details>

<style>
  h2 {
    font-size: var(--text);
    text-decoration: underline dotted;
    text-underline-offset: 0.3em;
  }
  h3 {
    font-size: var(--text);
    font-weight: 600;
    padding: var(--s2) 0 var(--s1);
  }
  .line {
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
</style>
