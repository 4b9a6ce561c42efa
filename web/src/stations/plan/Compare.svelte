<script lang="ts">
  import type { Compared } from "../../api/schema";
  import { bestOf, measures, shares, type Measure } from "../../drawings/comparing";
  import { shop } from "../../lib/shop.svelte";
  import { about } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";

  interface Props {
    compared: readonly Compared[];
    onclose: () => void;
  }
  const { compared, onclose }: Props = $props();

  function shown(measure: Measure, value: number | null): string {
    if (value === null) return "–";
    if (measure.over !== undefined && value > measure.over) return "no limit";
    if (measure.key === "cost") return shop.money(value);
    if (measure.kind === "plain") return `${about(value, 2)} ${measure.suffix ?? ""}`.trim();
    return shop.say(value, measure.kind);
  }
</script>

<section aria-label="Compared">
  <header>
    <h2>Side by side</h2>
    <Action onclick={onclose}>Close</Action>
  </header>
  <div class="grid" style:--n={compared.length}>
    <span></span>
    {#each compared as c (c.band.band_id)}
      <div class="head">
        <strong class="mono">{shop.bandName(c.band)}</strong>
        <span class="soft"
          >{shop.number(c.band.width_mm, "length")} × {shop.number(c.band.thickness_mm, "thin")}, {c
            .band.edge}</span
        >
        {#if c.option}
          <span>limited by {shop.reference?.limit_marks[c.option.window.binding]}</span>
        {:else}
          <span class="cannot">cannot: {shop.words(c.reasons[0]?.text ?? "")}</span>
        {/if}
      </div>
    {/each}
    {#each measures(shop.reference?.many_bending_hours ?? Infinity) as measure (measure.key)}
      {@const parts = shares(measure, compared)}
      {@const best = bestOf(measure, compared, (v) => shown(measure, v))}
      <span class="label">{measure.label}</span>
      {#each compared as c, i (c.band.band_id)}
        <div class="cell" data-best={best[i]}>
          <span class="bar"><i style:width="{100 * (parts[i] ?? 0)}%"></i></span>
          <span class="mono"
            >{measure.range?.(c)
              ? shop.moneySpan(measure.range(c) ?? { low: 0, high: 0 })
              : shown(measure, measure.of(c))}{#if best[i]}<span class="unseen">
                best</span
              >{/if}</span
          >
        </div>
      {/each}
    {/each}
  </div>
</section>

<style>
  section {
    margin-top: var(--s5);
    border-top: var(--rule) solid var(--ink);
    padding-top: var(--s3);
  }
  header {
    display: flex;
    gap: var(--s5);
    align-items: center;
  }
  .grid {
    display: grid;
    grid-template-columns: 9rem repeat(var(--n), minmax(min(8rem, 100%), 1fr));
    gap: 0 var(--s5);
    overflow-x: auto;
  }
  .head {
    display: grid;
    align-content: start;
    padding-bottom: var(--s2);
  }
  .head strong {
    font-size: var(--text-large);
  }
  .label,
  .cell {
    border-top: var(--hair) solid var(--hairline);
    padding: var(--s2) 0;
  }
  .label {
    color: var(--ink-soft);
  }
  .bar {
    display: block;
    height: 0.6rem;
    border-left: var(--hair) solid var(--ink);
  }
  .bar i {
    display: block;
    height: 100%;
    background: var(--steel);
  }
  [data-best="true"] .bar i {
    background: var(--jade);
  }
  [data-best="true"] .mono {
    font-weight: 700;
  }
  .cannot {
    color: var(--brass-text);
  }
</style>
