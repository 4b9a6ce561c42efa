<script lang="ts">
  import type { RunCard, SetupAnswer } from "../../api/schema";
  import { outbox } from "../../lib/sending/outbox.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { percent } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Cautions from "../../parts/Cautions.svelte";
  import EdgeTip from "../../parts/pictures/EdgeTip.svelte";
  import Lot from "./Lot.svelte";
  import Wear from "./Wear.svelte";

  interface Props {
    card: RunCard;
    /** The set-up card of the job in hand; null before there is one. */
    setup: SetupAnswer | null;
    count: number;
    onbelieve: (run_id: number) => void;
    ontakeback: () => void;
  }
  const { card, setup, count, onbelieve, ontakeback }: Props = $props();
  const last = $derived(outbox.last);
</script>

{#if card.lot}<Lot lot={card.lot} />{/if}
{#if last && last.band.id === card.band_id}
  {#if last.to_confirm}
    <p class="unready" role="alert">
      <strong>{shop.words(last.to_confirm)}</strong> Kept; it moves no wear until confirmed.
    </p>
    <Action main onclick={() => onbelieve(last.id)}>Yes, it was so</Action>
  {:else}
    <Wear run={last} />
  {/if}
  {#if last.not_tapped}<p class="soft">Nobody tapped before it: {last.not_tapped}.</p>{/if}
  {#if last.without_card}<p class="soft">Marked: {last.without_card}</p>{/if}
  <Action href="#/rack/{last.band.id}">Its whole life</Action>
  <Action onclick={() => ontakeback()}>Take the run back</Action>
{:else if setup}
  {@const band = setup.option.band}
  <p class="edge">
    <EdgeTip edge={band.edge} radius_um={band.tip_radius_um} />
    <span class="mono">{band.label}</span>
  </p>
  <p>Edge used: {percent(band.dullness)}.</p>
  {#if setup.option.figures.lasts !== null}
    <p>
      {shop.chance(setup.option.figures.lasts)} chance that it lasts all {count}; then {percent(
        setup.option.figures.dullness_after,
      )} of the edge is used.
    </p>
  {/if}
{/if}
{#if setup}
  <Cautions
    cautions={setup.cautions.filter((c) => c.level !== "note")}
    disclaimer={setup.disclaimer}
  />
{/if}

<style>
  .edge {
    font-size: var(--figure);
    font-weight: 650;
    display: flex;
    gap: var(--s4);
  }
  .unready {
    padding-bottom: var(--s3);
    color: var(--vermilion);
  }
</style>
