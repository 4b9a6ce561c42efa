<script lang="ts">
  import type { AtTheSaw } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  interface Props {
    saw: AtTheSaw;
    strikes: number;
    teeth_lost: number;
    onstrike: (teeth_lost: number) => void;
  }
  const { saw, strikes, teeth_lost, onstrike }: Props = $props();
  let stage = $state<"" | "ahead" | "struck">("");
  let gone = $state<number | null>(0);
  const SPAN = 400;
  const at = (mm: number) => (mm / (saw.stock_length_mm || 1)) * SPAN;

  function looked(teeth: number): void {
    onstrike(teeth);
    stage = "";
    gone = 0;
  }
</script>

{#if saw.zones.length > 0}
  <div class="zones">
    <p>
      <strong>Metal in {saw.stock_label}:</strong>
      slow from
      {#each saw.zones as zone, i (zone.from_mm)}{i ? "; from " : ""}<span class="mono"
          >{shop.say(zone.from_mm, "length")}</span
        >
        to <span class="mono">{shop.say(zone.to_mm, "length")}</span>{/each}.
    </p>
    <svg viewBox="-4 -12 {SPAN + 8} 24" role="img" aria-label="Slow zones along the board">
      <line x2={SPAN} />
      {#each saw.zones as zone (zone.from_mm)}
        <rect x={at(zone.from_mm)} y="-8" width={at(zone.to_mm) - at(zone.from_mm)} height="16" />
      {/each}
    </svg>
  </div>
{/if}
{#if stage === ""}
  <Action onclick={() => (stage = "ahead")}>Nail ahead</Action>
  {#if strikes > 0}
    <p class="soft">
      {strikes === 1 ? "One strike" : `${strikes} strikes`} noted{teeth_lost
        ? `, ${teeth_lost} teeth gone`
        : ", teeth all there"}.
    </p>
  {/if}
{:else if stage === "ahead"}
  <div class="slow" role="alert">
    <p>
      <strong class="figure">{shop.say(saw.slow.feed_m_min, "feed")}</strong> at
      <strong class="figure">{shop.say(saw.slow.speed_m_s, "speed")}</strong>
      <span class="soft">({saw.slow.setting})</span>
    </p>
    <p>Eye protection on, no hand in line with the band; teeth can fly.</p>
    <div class="acts">
      <Action main onclick={() => (stage = "struck")}>It struck</Action>
      <Action onclick={() => (stage = "")}>Past it, nothing struck</Action>
    </div>
  </div>
{:else}
  <div class="slow" role="alert">
    <p><strong>Stop. Isolate. Look at every tooth and the weld before going on.</strong></p>
    <div class="acts">
      <Action main onclick={() => looked(0)}>All teeth are there</Action>
      <QuantityField
        label="Or so many are gone"
        kind="plain"
        value={gone}
        onvalue={(v) => (gone = v)}
      />
      {#if gone}<Action onclick={() => looked(Math.round(gone ?? 0))}
          >{Math.round(gone)} gone</Action
        >{/if}
    </div>
    {#if gone}<p>
        A band that lacks teeth comes off; with a crack or a kink it is not put back.
      </p>{/if}
  </div>
{/if}

<style>
  .zones {
    width: 100%;
  }
  svg {
    width: 100%;
    height: 1.6rem;
  }
  line {
    stroke: var(--ink);
    stroke-width: 2;
  }
  rect {
    fill: var(--vermilion-pale);
    stroke: var(--vermilion);
  }
  .slow {
    width: 100%;
    border-left: var(--s2) solid var(--vermilion);
    background: var(--vermilion-pale);
    padding: var(--s3) var(--s4);
    display: grid;
    gap: var(--s2);
  }
  .figure {
    font: 700 var(--figure) var(--mono);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
  }
</style>
