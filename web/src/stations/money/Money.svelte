<script lang="ts">
  import Wide from "../../parts/Wide.svelte";
  import { scaleLinear } from "d3-scale";

  import { askPatiently, client, wordsOf } from "../../api/client";
  import type { MoneyRuns, MoneyView, RuleCost } from "../../api/schema";
  import { called, choicesOf } from "../../lib/forms";
  import { Latest } from "../../lib/sending/latest";
  import { shop } from "../../lib/shop.svelte";
  import { day, duration, fixed, percent, significant, type Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Payback from "./Payback.svelte";
  import LogPages from "../log/LogPages.svelte";

  type By = "month" | "steel" | "type" | "material" | "saw" | "person";
  type Measure = "total" | "per_m2" | "per_metre" | "per_piece";
  let by = $state<By>("month");
  let since = $state("");
  let until = $state("");
  let measure = $state<Measure>("total");
  let sort = $state<"given" | "measure" | "name">("given");
  let view = $state<MoneyView | null>(null);
  let opened = $state<string | null>(null);
  let runs = $state<MoneyRuns | null>(null);
  let rules = $state<RuleCost[] | null>(null);
  let fault = $state<Said>("");
  const asked = new Latest();
  const days = $derived({
    ...(since ? { since } : {}),
    ...(until ? { until } : {}),
  });

  // How to look, and over which days, asks the server.
  $effect(() => {
    const query = { by, ...days };
    opened = null;
    asked
      .take(() => askPatiently(() => client.GET("/api/money", { params: { query } })))
      .then((found) => ([view, fault] = [found, ""]))
      .catch((problem: unknown) => (fault = wordsOf(problem)));
  });

  async function open(key: string): Promise<void> {
    if (opened === key) {
      opened = null;
      return;
    }
    opened = key;
    runs = null;
    try {
      const query = { by, key, ...days };
      runs = await askPatiently(() => client.GET("/api/money/runs", { params: { query } }));
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  async function askRules(): Promise<void> {
    try {
      rules = await askPatiently(() => client.GET("/api/money/rules"));
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  const lines = $derived.by(() => {
    const all = [...(view?.lines ?? [])];
    if (sort === "measure") all.sort((a, b) => (b.cost[measure] ?? 0) - (a.cost[measure] ?? 0));
    if (sort === "name") all.sort((a, b) => a.name.localeCompare(b.name));
    return all;
  });
  let width = $state(420);
  const most = $derived(
    Math.max(
      ...lines.map((l) =>
        Math.max(l.cost[measure] ?? 0, measure === "per_m2" ? (l.cost.m2_high ?? 0) : 0),
      ),
      1e-9,
    ),
  );
  const x = $derived(scaleLinear([0, most], [0, Math.max(width - 8, 60)]));
  const address = $derived(`/money.csv?${new URLSearchParams({ by, ...days }).toString()}`);
  const hours = (h: number) => `${fixed(h, h < 10 ? 1 : 0)} h`;
  const shown = (value: number | null) => (value === null ? "–" : fixed(value, 2));
</script>

<LogPages title="What sawing costs" />
<div class="form">
  <div class="ways" role="group" aria-label="By">
    {#each choicesOf<By>("money_by") as way (way.key)}
      <button type="button" aria-pressed={by === way.key} onclick={() => (by = way.key)}
        >{way.name}</button
      >
    {/each}
  </div>
  <label>From<input type="month" bind:value={since} /></label>
  <label>to<input type="month" bind:value={until} /></label>
  <label
    >Bars<select bind:value={measure}>
      {#each choicesOf<Measure>("money_of") as m (m.key)}<option value={m.key}>{m.name}</option
        >{/each}
    </select></label
  >
  <label
    >Sort<select bind:value={sort}>
      <option value="given">{by === "month" ? "by time" : "dearest in all first"}</option>
      <option value="measure">longest bar first</option>
      <option value="name">by name</option>
    </select></label
  >
  <Action href={address}>CSV</Action>
</div>
{#if fault}<p role="alert" class="fault">{shop.words(fault)}</p>{/if}
{#if view}
  {@const w = view.whole}
  <p class="whole">
    <strong class="mono">{shop.money(w.total)}</strong> in {w.runs} runs, {hours(w.hours)} of sawing:
    time <span class="mono">{fixed(w.time, 2)}</span>, edges
    <span class="mono">{fixed(w.edge, 2)}</span>{#if w.per_m2 !== null}; <strong class="mono"
        >{shop.money(w.per_m2)}</strong
      > a m²{/if}{#if w.per_metre !== null}, <span class="mono">{fixed(w.per_metre, 2)}</span> a metre{/if}.
    {#if view.dull.told_min > 0}
      Dull edges took <strong class="mono">{hours(view.dull.lost_min / 60)}</strong> more than keen
      ones would have, of {hours(view.dull.told_min / 60)} sawn dull by hand:
      <strong class="mono">{shop.money(view.dull_money)}</strong>.
    {/if}
    {#if view.dull.untold_min > 0}
      <span class="soft"
        >Not counted: {hours(view.dull.untold_min / 60)} sawn dull in cuts that keen edges hardly made.</span
      >
    {/if}
    {#if w.unpriced_share > 0.005}
      <span class="soft"
        >{percent(w.unpriced_share)} of the wear was on bands whose price nobody gave: reckoned at the
        usual one.</span
      >
    {/if}
    {#if view.waiting > 0}
      {view.waiting} runs wait to be confirmed on their bands’ pages, and are not counted.
    {/if}
  </p>
  <Wide label="The totals">
    <table>
      <thead>
        <tr>
          <th scope="col">{by}</th>
          <th scope="col">runs</th>
          <th scope="col">hours</th>
          <th scope="col">m²</th>
          <th scope="col">{called("money_of", measure)}</th>
          <th scope="col" class="bar"><span class="unseen">on one axis</span></th>
        </tr>
      </thead>
      <tbody>
        {#each lines as line, i (line.key)}
          {@const value = line.cost[measure]}
          <tr>
            <th scope="row">
              <button
                type="button"
                aria-expanded={opened === line.key}
                onclick={() => void open(line.key)}>{line.name}</button
              >
            </th>
            <td class="mono">{line.cost.runs}</td>
            <td class="mono">{fixed(line.cost.hours, 1)}</td>
            <td class="mono">{significant(line.cost.area_m2, 3)}</td>
            <td class="mono">{shown(value)}</td>
            <td class="bar">
              {#if i === 0}<div bind:clientWidth={width}></div>{/if}
              <svg class="drawing" height="22" aria-hidden="true">
                {#if value !== null}
                  {#if measure === "total"}
                    <path class="time" d="M0 11H{x(line.cost.time)}" />
                    <path class="edge" d="M{x(line.cost.time)} 11H{x(line.cost.total)}" />
                  {:else}
                    <path class="time" d="M0 11H{x(value)}" />
                  {/if}
                  {#if measure === "per_m2" && line.cost.m2_low !== null && line.cost.m2_high !== null}
                    <path class="spread" d="M{x(line.cost.m2_low)} 11H{x(line.cost.m2_high)}" />
                  {/if}
                {/if}
              </svg>
            </td>
          </tr>
          {#if opened === line.key}
            <tr class="runs">
              <td colspan="6">
                {#if runs}
                  <p class="soft">
                    {runs.count} runs,
                    <span class="mono">{shop.money(runs.total)}</span>{runs.count > runs.runs.length
                      ? `; the longest ${runs.runs.length}`
                      : ""}:
                  </p>
                  <ul>
                    {#each runs.runs as run (run.id)}
                      <li>
                        <span class="mono soft">{day(run.at)}</span>
                        <a class="mono" href="#/rack/{run.band_id}">{run.label}</a>
                        <span
                          >{run.pieces} × {shop.say(run.length_mm, "long")} of {shop.materialName(
                            run.material,
                          )}, {shop.say(run.height_mm, "length")} high, {run.saw}
                          {run.who}</span
                        >
                        <span class="mono">{duration(60 * run.minutes)}</span>
                        <span class="mono">{fixed(run.time + run.edge, 2)}</span>
                      </li>
                    {/each}
                  </ul>
                {:else}<p class="soft">Reading its runs …</p>{/if}
              </td>
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
  </Wide>
  <p class="soft">
    {measure === "total"
      ? "Dark: time at the shop’s hour. Light: the edges’ share of their bands."
      : measure === "per_m2"
        ? "Bar: likely range (80 %); none under three runs."
        : ""}
  </p>
  <p class="soft">
    Time at the hour’s price and the edges’ share of their bands, sharpened as the house rule says;
    change-overs, kerf and what comes after the saw are not in it.
  </p>
  <h2>What house rules cost</h2>
  {#if rules}
    <ul>
      {#each rules as r (r.rule + r.other)}
        <li class="rule">
          <span
            >{r.rule.replaceAll("_", " ")}: {r.choice.replaceAll("_", " ")}, not {r.other.replaceAll(
              "_",
              " ",
            )}</span
          >
          <strong class="mono"
            >{r.cost >= 0 ? "costs" : "saves"} {shop.money(Math.abs(r.cost))}</strong
          >
          <span class="soft">over {r.jobs.join(", ")}</span>
        </li>
      {:else}<li>No rule decides anything in the open jobs.</li>{/each}
    </ul>
  {:else}
    <Action onclick={() => void askRules()}>Reckon it over the open jobs</Action>
  {/if}
  <Payback />
{:else if !fault}
  <p class="soft">Adding up …</p>
{/if}

<style>
  .form,
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: end;
  }
  .ways {
    gap: 0;
  }
  .ways button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    border-bottom: var(--rule) solid var(--hairline);
  }
  .ways button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-bottom-color: var(--jade);
    font-weight: 650;
  }
  label {
    color: var(--ink-soft);
  }
  .whole {
    padding: var(--s3) 0;
    max-width: 60rem;
  }
  th,
  td {
    font-weight: 400;
    padding: 0 var(--s3) 0 0;
  }
  .bar {
    width: 45%;
    min-width: 9rem;
  }
  tbody th button {
    min-height: var(--touch);
    padding: 0;
    text-align: left;
    text-decoration: underline dotted;
    text-underline-offset: 0.25em;
  }
  .time {
    stroke: var(--jade);
    stroke-width: 12;
  }
  .edge {
    stroke: var(--jade-pale);
    stroke-width: 12;
  }
  .spread {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .runs li {
    display: grid;
    grid-template-columns: 8rem 5rem 1fr 6rem 5rem;
    gap: var(--s2);
  }
  .rule {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    align-items: baseline;
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  h2 {
    padding-top: var(--s5);
  }
  @media (max-width: 56.25em) {
    .runs li {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
