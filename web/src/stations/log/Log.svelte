<script lang="ts">
  import { askPatiently, client, wordsOf } from "../../api/client";
  import type { LoggedRun, RunLog } from "../../api/schema";
  import { Latest } from "../../lib/sending/latest";
  import { percent, day, fixed, time, type Said } from "../../lib/figures/units";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";
  import Wide from "../../parts/Wide.svelte";
  import LogPages from "./LogPages.svelte";

  type Sort = "at" | "pieces" | "minutes" | "feed" | "pace";
  const COLUMNS: readonly { key: Sort | ""; name: string }[] = [
    { key: "at", name: "When" },
    { key: "", name: "Job" },
    { key: "", name: "Saw" },
    { key: "", name: "Band" },
    { key: "", name: "Who" },
    { key: "pieces", name: "Pieces" },
    { key: "minutes", name: "Minutes (planned)" },
    { key: "feed", name: "Feed" },
    { key: "", name: "Signs" },
    { key: "", name: "Edge after" },
  ];
  let log = $state.raw<RunLog | null>(null);
  let fault = $state<Said>("");
  let saw = $state<number | null>(null);
  let who = $state("");
  let since = $state("");
  let until = $state("");
  let signs = $state(false);
  let sort = $state<Sort>("at");
  let up = $state(false);
  let page = $state(0);
  const asked = new Latest();
  const filter = $derived({
    ...(saw === null ? {} : { saw_id: saw }),
    ...(who ? { who } : {}),
    ...(since ? { since: new Date(`${since}T00:00`).toISOString() } : {}),
    ...(until ? { until: new Date(`${until}T24:00`).toISOString() } : {}),
    ...(signs ? { signs } : {}),
    sort,
    up,
  });
  const pages = $derived(log ? Math.max(1, Math.ceil(log.count / log.page_size)) : 1);
  const address = $derived(
    `/log.csv?${new URLSearchParams(Object.entries(filter).map(([k, v]) => [k, String(v)])).toString()}`,
  );

  // What is asked for asks the server.
  $effect(() => {
    const query = { ...filter, page };
    asked
      .take(() => askPatiently(() => client.GET("/api/runs", { params: { query } })))
      .then((found) => {
        if (found) [log, fault] = [found, ""];
      })
      .catch((problem: unknown) => (fault = wordsOf(problem)));
  });

  function by(column: Sort): void {
    up = sort === column ? !up : false;
    sort = column;
    page = 0;
  }

  function minutesOf(run: LoggedRun): string {
    const said = (value: number) => fixed(value, value < 10 ? 1 : 0);
    const planned = run.planned_minutes === null ? "" : ` (${said(run.planned_minutes)})`;
    return said(run.minutes) + planned;
  }
</script>

<LogPages title="Log" />
<div class="form no-print">
  <label
    >Saw<select
      value={String(saw)}
      onchange={(e) => ([saw, page] = [Number(e.currentTarget.value) || null, 0])}
    >
      <option value="null">any</option>
      {#each shop.saws as s (s.id)}<option value={String(s.id)}>{s.saw.name}</option>{/each}
    </select></label
  >
  <label
    >Who<select bind:value={who} onchange={() => (page = 0)}>
      <option value="">anybody</option>
      {#each log?.people ?? [] as name (name)}<option value={name}>{name}</option>{/each}
    </select></label
  >
  <label>From<input type="date" bind:value={since} onchange={() => (page = 0)} /></label>
  <label>To<input type="date" bind:value={until} onchange={() => (page = 0)} /></label>
  <label
    ><input type="checkbox" bind:checked={signs} onchange={() => (page = 0)} /> with signs only</label
  >
  <Action href={address}>CSV</Action>
</div>
{#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
{#if log}
  <p class="soft" role="status">{log.count} {log.count === 1 ? "run" : "runs"}</p>
  <Wide label="Runs">
    <table>
      <thead>
        <tr>
          {#each COLUMNS as column (column.name)}
            <th aria-sort={column.key === sort ? (up ? "ascending" : "descending") : undefined}>
              {#if column.key}
                {@const key = column.key}
                <button type="button" onclick={() => by(key)}
                  >{column.name}{sort === key ? (up ? " ↑" : " ↓") : ""}</button
                >
              {:else}{column.name}{/if}
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each log.runs as run (run.id)}
          <tr>
            <td class="when">{day(run.at)} {time(run.at)}</td>
            <td
              >{#if run.job_id}<a href="#/run/{run.job_id}">{run.job || `job ${run.job_id}`}</a
                >{:else}{shop.materialName(run.material)}{/if}</td
            >
            <td>{run.saw}</td>
            <td><a class="mono" href="#/rack/{run.band_id}">{run.band}</a></td>
            <td>{run.who || "–"}</td>
            <td class="mono">{run.pieces}</td>
            <td class="mono">{minutesOf(run)}</td>
            <td class="mono">{shop.say(run.feed_m_min, "feed")}</td>
            <td>{run.signs.join(", ").replaceAll("_", " ")}</td>
            <td>{run.waits ? "asked about" : `${percent(run.edge_used)} used`}</td>
          </tr>
        {:else}
          <tr><td colspan={COLUMNS.length} class="soft">No run is like that.</td></tr>
        {/each}
      </tbody>
    </table>
  </Wide>
  {#if pages > 1}
    <div class="actions no-print">
      <Action disabled={page === 0} onclick={() => (page -= 1)}>Later runs</Action>
      <span>page {page + 1} of {pages}</span>
      <Action disabled={page + 1 >= pages} onclick={() => (page += 1)}>Earlier runs</Action>
    </div>
  {/if}
{:else}
  <p class="soft">Reading the log …</p>
{/if}

<style>
  th button {
    min-height: var(--touch);
    padding: 0;
    font-weight: inherit;
    color: inherit;
    text-decoration: underline dotted;
    text-underline-offset: 0.3em;
  }
  .when {
    white-space: nowrap;
  }
</style>
