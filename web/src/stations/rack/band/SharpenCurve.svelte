<script lang="ts">
  import Wide from "../../../parts/Wide.svelte";
  import { scaleLinear } from "d3-scale";

  import type { BandPage, SharpenWay } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { fixed } from "../../../lib/figures/units";

  const { page }: { page: BandPage } = $props();
  const H = 150;
  let width = $state(560);
  const ways = $derived(page.sharpening.ways);
  const most = $derived(Math.max(...ways.flatMap((w) => w.plan.cost_per_1000_m)) * 1.05);
  const longest = $derived(Math.max(...ways.map((w) => w.plan.cost_per_1000_m.length - 1), 1));
  const x = $derived(scaleLinear([0, longest], [46, Math.max(width - 120, 160)]));
  const y = $derived(scaleLinear([0, most], [H, 8]));
  const least = $derived(page.sharpening.least);
  function costOf(way: SharpenWay): number {
    return way.plan.cost_per_1000_m[way.plan.best_times] ?? Infinity;
  }
  /** Names at the ends of the curves, none over another. */
  const names = $derived.by(() => {
    const ends = ways
      .filter((w) => w.plan.cost_per_1000_m.length > 1)
      .map((w) => ({ name: w.name, at: y(w.plan.cost_per_1000_m.at(-1) ?? 0) }))
      .sort((a, b) => a.at - b.at);
    let least = -Infinity;
    return ends.map((end) => {
      least = Math.max(end.at, least + 17);
      return { ...end, at: least };
    });
  });
  const path = (way: SharpenWay) =>
    way.plan.cost_per_1000_m.map((c, n) => `${n === 0 ? "M" : "L"}${x(n)} ${y(c)}`).join("");
  const verdict = $derived(least.length > 1 ? ", too close to call" : ", least cost");
  const rule = $derived(shop.settings?.rules["resharpening"]);
</script>

<section aria-label="Sharpening or a new one">
  <h2>Sharpen or replace</h2>
  {#if longest > 0}
    <figure bind:clientWidth={width}>
      <svg
        {width}
        height={H + 44}
        role="img"
        aria-label="Money a 1 000 m of cut over the times sharpened"
      >
        <path class="axis" d="M46 {H}H{x(longest)}" />
        {#each Array.from({ length: longest + 1 }, (_, n) => n) as n (n)}
          <text x={x(n)} y={H + 20} text-anchor="middle">{n}</text>
        {/each}
        <text x={x(longest / 2)} y={H + 40} text-anchor="middle">times sharpened</text>
        <text x="42" y={y(most / 1.05) + 5} text-anchor="end">{fixed(most / 1.05, 1)}</text>
        <text x="42" y={H + 5} text-anchor="end">0</text>
        {#each ways as way (way.key)}
          {@const n = way.plan.best_times}
          <path class="way" data-best={least.includes(way.key)} d={path(way)} />
          <circle
            cx={x(n)}
            cy={y(way.plan.cost_per_1000_m[n] ?? 0)}
            r="6"
            data-best={least.includes(way.key)}
          />
        {/each}
        {#each names as end (end.name)}
          <text x={x(longest) + 10} y={end.at + 5}>{end.name}</text>
        {/each}
        <path class="now" d="M{x(Math.min(page.band.sharpenings, longest))} 8V{H}" />
      </svg>
    </figure>
    <Wide label="Ways side by side">
      <table>
        <thead>
          <tr>
            <th scope="col">way</th>
            <th scope="col">each time</th>
            <th scope="col">best times</th>
            <th scope="col">a 1 000 m</th>
            <th scope="col">hours a 1 000 m</th>
            <th scope="col">away</th>
          </tr>
        </thead>
        <tbody>
          {#each ways as way (way.key)}
            <tr data-best={least.includes(way.key)}>
              <th scope="row"
                >{way.name}{way.key === rule ? " (house rule)" : ""}{least.includes(way.key)
                  ? verdict
                  : ""}</th
              >
              <td class="mono">{way.key === "never" ? "–" : shop.money(way.each)}</td>
              <td class="mono">{way.plan.best_times}</td>
              <td class="mono">{shop.money(costOf(way))}</td>
              <td class="mono">{fixed(way.hours_per_1000_m, 2)}</td>
              <td
                >{way.days_away === 0
                  ? ""
                  : `${way.days_away} days: ${way.spares} more ${way.spares === 1 ? "band" : "bands"}`}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </Wide>
  {/if}
  <p class="soft">
    The upright: sharpened {page.band.sharpenings} times. At most {page.sharpening.bounds.times}: {page
      .sharpening.bounds.by}. Each life is {fixed(page.sharpening.life_ratio, 2)} of the one before,
    {page.sharpening.ratio_lives === 0
      ? "by the table: no life here speaks yet"
      : `${page.sharpening.ratio_lives} of this shop’s lives speaking`}. Prices:
    <a href="#/shop/prices">Shop → Prices</a>.
  </p>
</section>

<style>
  section {
    padding-top: var(--s5);
  }
  svg {
    display: block;
    max-width: 100%;
  }
  text {
    fill: var(--ink-soft);
    font-size: 15px;
  }
  .axis {
    stroke: var(--ink);
  }
  .way {
    fill: none;
    stroke: var(--steel);
    stroke-width: 2;
  }
  .way[data-best="true"] {
    stroke: var(--jade);
    stroke-width: 3;
  }
  circle {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 2;
  }
  circle[data-best="true"] {
    fill: var(--jade);
  }
  .now {
    stroke: var(--brass);
    stroke-dasharray: 3 4;
    stroke-width: 1.5;
  }
  th,
  td {
    font-weight: 400;
    padding: var(--s1) var(--s4) var(--s1) 0;
  }
  tr[data-best="true"] th {
    font-weight: 650;
  }
</style>
