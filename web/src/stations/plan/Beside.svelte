<script lang="ts">
  import type { FeedFigures, PlanAnswer } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { shop } from "../../lib/shop.svelte";
  import { fixed } from "../../lib/figures/units";
  import { currentJob } from "../../lib/currentJob.svelte";
  import CostSpread from "../../parts/pictures/CostSpread.svelte";
  import EdgeTip from "../../parts/pictures/EdgeTip.svelte";
  import LeansOn from "./LeansOn.svelte";
  import type { PlanState } from "./plan.svelte";

  interface Props {
    plan: PlanState;
    answer: PlanAnswer;
    figures: FeedFigures | null;
    /** Bands being compared, by id. */
    chosen: readonly number[];
    oncompare: (id: number) => void;
  }
  const { plan, answer, figures, chosen, oncompare }: Props = $props();
  const best = $derived(answer.best?.band.band_id ?? null);
  const shown = $derived(answer.best ? [answer.best, ...answer.alternatives] : []);
  /** One axis of money for all of them, ended where most of it is seen. */
  const axis = $derived(
    Math.max(...shown.map((o) => Math.min(o.spread.cost.high, 3 * o.figures.cost_total)), 0),
  );

  const COSTS = ["edge", "time", "kerf", "later", "change", "power"] as const;
</script>

<div class="beside">
  {#if figures}
    <section>
      <h2>
        Cost of a piece, over the lot
        <span class="mono">{shop.moneySpan(figures.spread.cost)}</span>
      </h2>
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
    </section>
  {/if}
  {#if answer.steels.length > 1}
    {@const most = Math.max(...answer.steels.map((x) => x.high))}
    <section>
      <h2>Steel and money, of common types new</h2>
      {#each answer.steels as steel (steel.steel)}
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
      <p class="soft">
        The line holds eight in ten of all that is not sure. {answer.sure?.guesses ?? ""}
      </p>
    </section>
  {/if}
  {#if answer.buy}
    <section>
      <h2>Worth buying</h2>
      <p>
        <strong>{shop.typeName(answer.buy.option.band)}</strong>, welded to {shop.say(
          answer.buy.length_mm,
          "length",
        )}, about {shop.money(answer.buy.price)}: {shop.moneySpan(answer.buy.option.spread.cost)} a piece.
      </p>
      <p class="soft">{shop.words(answer.buy.words)}</p>
    </section>
  {/if}
  <section>
    <h2>Bands that can, by cost</h2>
    {#each shown as option (option.band.label)}
      <div class="row">
        <a href="#/rack/{option.band.band_id}"><strong>{option.band.label}</strong></a>
        <span>
          {shop.number(option.band.width_mm, "length")} × {shop.number(
            option.band.thickness_mm,
            "thin",
          )},
          {option.band.tpi_lo === option.band.tpi_hi
            ? option.band.tpi_lo
            : `${option.band.tpi_lo}–${option.band.tpi_hi}`} tpi
        </span>
        <EdgeTip edge={option.band.edge} radius_um={option.band.tip_radius_um} />
        <CostSpread
          cost={option.spread.cost}
          at={option.figures.cost_total}
          most={axis}
          best={option === answer.best}
        />
        {#if option === answer.best}
          <span class="pick">chosen</span>
        {:else if option.band.band_id !== null}
          {@const id = option.band.band_id}
          <label class="pick"
            ><input
              type="checkbox"
              checked={chosen.includes(id)}
              onchange={() => {
                if (best !== null && chosen.length === 0) oncompare(best);
                oncompare(id);
              }}
            /> compare</label
          >
        {/if}
        <span class="soft"
          >{[
            shop.moneySpan(option.spread.cost),
            option.spread.chance_words ? `the cheapest ${option.spread.chance_words}` : "",
            shop.words(option.difference),
          ]
            .filter(Boolean)
            .join(", ")}</span
        >
      </div>
    {:else}
      <p class="soft">None.</p>
    {/each}
  </section>
  <section>
    <h2>Your other saws</h2>
    {#each answer.saws as saw (saw.saw_id)}
      <div class="row saw">
        <button
          type="button"
          onclick={() => currentJob.change({ saw_id: saw.saw_id, band_id: null })}
          ><strong>{saw.name}</strong></button
        >
        {#if saw.able && saw.cost !== null && saw.feed_m_min !== null}
          <span
            >{shop.words(saw.words)}, {shop.say(saw.feed_m_min, "feed")}{saw.kerf_mm
              ? `, kerf ${shop.say(saw.kerf_mm, "thin")}`
              : ""}</span
          ><span class="mono">{shop.moneySpan(saw.cost)}</span>
        {:else}
          <span class="soft">cannot: {shop.words(saw.words)}</span>
        {/if}
      </div>
    {:else}
      <p class="soft">This is the only one.</p>
    {/each}
  </section>
  <section>
    <details>
      <summary><h2>Left out, and why ({answer.excluded.length})</h2></summary>
      {#each answer.excluded as band (band.label)}
        <div class="row out">
          <strong>{band.label}</strong>
          <span class="soft">{shop.words(band.reasons.map((r) => r.text).join(". "))}.</span>
        </div>
      {/each}
    </details>
    <LeansOn {plan} {answer} />
  </section>
</div>

<style>
  .beside {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
    gap: var(--s5) var(--s6);
    padding-top: var(--s5);
    margin-top: var(--s4);
    border-top: var(--rule) solid var(--ink);
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
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s3);
    align-items: center;
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .row a,
  .row button {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
  .row button {
    padding: 0;
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  .row > .soft {
    flex-basis: 100%;
  }
  .row .mono {
    margin-left: auto;
  }
  .pick {
    display: inline-flex;
    align-items: center;
    gap: var(--s2);
    min-height: var(--touch);
  }
  .pick input {
    width: 1.4rem;
    height: 1.4rem;
  }
  .out {
    display: block;
  }
  summary h2 {
    text-decoration: underline dotted;
    text-underline-offset: 0.3em;
  }
</style>
