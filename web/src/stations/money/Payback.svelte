<script lang="ts">
  import { ask, client, wordsOf } from "../../api/client";
  import type { Payback } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  let accessory = $state("debarker");
  let price = $state<number | null>(null);
  let found = $state<Payback | null>(null);
  let fault = $state<Said>("");
  const kinds = $derived(shop.reference?.accessories ?? []);

  async function look(): Promise<void> {
    try {
      found = await ask(client.POST("/api/money/payback", { body: { accessory, price } }));
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<section aria-label="Does it pay">
  <h2>Would it pay for itself?</h2>
  <div class="form">
    <label
      >What<select bind:value={accessory} onchange={() => (found = null)}>
        {#each kinds as k (k.key)}<option value={k.key}>{k.title}</option>{/each}
      </select></label
    >
    <QuantityField
      label="Its price, if known"
      kind="plain"
      value={price}
      onvalue={(v) => (price = v)}
    />
    <Action onclick={() => void look()}>By last year’s record</Action>
  </div>
  {#if fault}<p role="alert">{shop.words(fault)}</p>{/if}
  {#if found}
    <p role="status">
      <strong>{found.title}: {found.words}</strong>
      {#if found.found}<span class="soft"
          >It saves {found.saves}: {shop.moneySpan({
            low: Math.max(0, found.found.saved_low),
            high: Math.max(0, found.found.saved_high),
          })} a year of {shop.money(found.edge_money)} in edges and {found.strikes} strikes, for
          {shop.money(found.price)}. Shares saved are guesses, good to {found.unsure} times either way.</span
        >{/if}
    </p>
  {/if}
</section>

<style>
  section {
    padding-top: var(--s5);
  }
  p {
    max-width: 52rem;
    padding-top: var(--s2);
  }
</style>
