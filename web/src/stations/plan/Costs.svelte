<script lang="ts">
  import type { FeedFigures, SteelCost } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { shop } from "../../lib/shop.svelte";
  import { fixed } from "../../lib/figures/units";

  interface Props {
    figures: FeedFigures;
    steels: readonly SteelCost[];
    /** What is guessed of them all; '' for nothing. */
    guesses: string;
  }
  const { figures, steels, guesses }: Props = $props();
  const COSTS = ["edge", "time", "kerf", "later", "change", "power"] as const;
  const most = $derived(Math.max(...steels.map((x) => x.high)));
</script>

<div class="two">
  <div>
    <h2>A piece, over the lot: {shop.moneySpan(figures.spread.cost)}</h2>
    <div class="bar" aria-hidden="true">
      {#each COSTS as key (key)}<span data-key={key} style:flex-grow={figures.cost[key]}
        ></span>{/each}
    </div>
    <dl>
      {#each COSTS as key (key)}
        {#if figures.cost[key] > 0}
          <div>
            <dt><span class="swatch" data-key={key}></span>{called("cost_part", key)}</dt>
            <dd class="mono">{fixed(figures.cost[key], 2)}</dd>
          </div>
        {/if}
      {/each}
    </dl>
  </div>
  {#if steels.length > 1}
    <div>
      <h2>Steel and money, of common types new</h2>
      {#each steels as steel (steel.steel)}
        <div class="steel">
          <span>{steel.steel_name.split(" (")[0]}</span>
          <span class="mono">{shop.money(steel.total)}</span>
          <div class="bar wide" aria-hidden="true">
            {#each COSTS as key (key)}<span
                data-key={key}
                style:width="{(100 * steel.cost[key]) / most}%"
              ></span>{/each}
            <i
              class="spread"
              style:left="{(100 * steel.low) / most}%"
              style:width="{(100 * (steel.high - steel.low)) / most}%"
            ></i>
          </div>
          <span class="soft"
            >{shop.money(steel.low)} to {fixed(steel.high, 2)} a piece{steel.close
              ? ": too close to call"
              : ""}; a band {shop.money(steel.band_price)}</span
          >
        </div>
      {/each}
      <p class="soft">Bar: likely range (80 %). {guesses}</p>
    </div>
  {/if}
</div>

<style>
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
    gap: var(--s4) var(--s6);
  }
  h2 {
    font-size: var(--text);
    padding-bottom: var(--s1);
  }
  .bar {
    display: flex;
    height: 1rem;
  }
  [data-key="edge"] {
    background: var(--jade);
  }
  [data-key="time"] {
    background: var(--brass);
  }
  [data-key="kerf"] {
    background: var(--wood);
  }
  [data-key="later"] {
    background: var(--steel);
  }
  [data-key="change"] {
    background: var(--ink-soft);
  }
  [data-key="power"] {
    background: var(--ink);
  }
  .steel {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 var(--s3);
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .wide {
    grid-column: 1 / -1;
    position: relative;
  }
  .spread {
    position: absolute;
    top: 50%;
    height: 2px;
    background: var(--ink);
  }
  .steel .soft {
    grid-column: 1 / -1;
  }
  .swatch {
    display: inline-block;
    width: 0.8rem;
    height: 0.8rem;
    margin-right: var(--s2);
  }
  dl div {
    display: flex;
    justify-content: space-between;
    border-bottom: var(--hair) solid var(--hairline);
    padding: var(--s1) 0;
  }
</style>
