<script lang="ts">
  import type { PlanAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";
  import CostSpread from "../../parts/pictures/CostSpread.svelte";
  import EdgeTip from "../../parts/pictures/EdgeTip.svelte";

  interface Props {
    answer: PlanAnswer;
    /** Bands being compared, by id. */
    chosen: readonly number[];
    oncompare: (id: number) => void;
    onuse: (id: number) => void;
    /** Nothing is set up while something is only tried out. */
    held: boolean;
  }
  const { answer, chosen, oncompare, onuse, held }: Props = $props();
  const best = $derived(answer.best?.band.band_id ?? null);
  const shown = $derived(answer.best ? [answer.best, ...answer.alternatives] : []);
  /** One axis of money for all of them, ended where most of it is seen. */
  const axis = $derived(
    Math.max(...shown.map((o) => Math.min(o.spread.cost.high, 3 * o.figures.cost_total)), 0),
  );
</script>

<ul class="rows" aria-label="Bands that can, by cost">
  {#each shown as option (option.band.label)}
    <li>
      <a href="#/rack/{option.band.band_id}"><strong>{option.band.label}</strong></a>
      <span>{shop.bandSize(option.band)}</span>
      <EdgeTip edge={option.band.edge} radius_um={option.band.tip_radius_um} />
      <CostSpread
        cost={option.spread.cost}
        at={option.figures.cost_total}
        most={axis}
        best={option === answer.best}
      />
      <span class="soft words"
        >{[
          shop.moneySpan(option.spread.cost),
          option.spread.chance_words ? `the cheapest ${option.spread.chance_words}` : "",
          shop.words(option.difference),
        ]
          .filter(Boolean)
          .join(", ")}</span
      >
      {#if option.band.band_id !== null && option !== answer.best}
        {@const id = option.band.band_id}
        <label
          ><input
            type="checkbox"
            checked={chosen.includes(id)}
            onchange={() => {
              if (best !== null && chosen.length === 0) oncompare(best);
              oncompare(id);
            }}
          /> compare</label
        >
        <Action disabled={held} onclick={() => onuse(id)}>Use this</Action>
      {:else}
        <span class="soft">chosen</span>
      {/if}
    </li>
  {:else}
    <li class="soft">None.</li>
  {/each}
</ul>

<style>
  li {
    grid-template-columns: 4rem 9.5rem 6rem 10rem minmax(10rem, 1fr) auto auto;
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
  @media (max-width: 62.5em) {
    li {
      grid-template-columns: 1fr 1fr;
    }
    .words {
      grid-column: 1 / -1;
    }
  }
</style>
