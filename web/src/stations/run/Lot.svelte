<script lang="ts">
  import type { LotUnderWay } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";

  const { lot }: { lot: LotUnderWay } = $props();
  const has = $derived(
    lot.pieces_low === lot.pieces_high
      ? String(lot.pieces_low)
      : `${lot.pieces_low}–${lot.pieces_high}`,
  );
</script>

<div class="lot" data-better={lot.go_on.better}>
  <p>
    <strong class="mono">{lot.done}</strong> done,
    <strong class="mono">{lot.left}</strong> left{#if lot.pace_words}, {shop.words(
        lot.pace_words,
      )}{/if}.
    {#if !lot.blocked}
      This edge has <strong class="mono">{has}</strong> of them in it (eight chances in ten);
      {shop.words(lot.bands_words)}
    {/if}
  </p>
  <p><strong>{shop.words(lot.words)}</strong></p>
  {#if lot.another}<p>{shop.words(lot.another)}</p>{/if}
  {#if !lot.blocked}
    <p class="soft">
      The next piece: going on costs {shop.money(lot.go_on.go_on_cost)}, changing first {shop.money(
        lot.go_on.change_cost,
      )}.
    </p>
  {/if}
</div>

<style>
  .lot {
    padding-bottom: var(--s3);
    border-bottom: var(--rule) solid var(--hairline);
  }
  .lot p {
    margin: 0 0 var(--s1);
  }
  .lot[data-better="change"] {
    border-left: var(--s2) solid var(--vermilion);
    padding-left: var(--s3);
  }
</style>
