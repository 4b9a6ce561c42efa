<script lang="ts">
  import { push, router } from "svelte-spa-router";

  import { ask, client, wordsOf } from "../../api/client";
  import type { BandAnswer, TroubleInput, TroubleLine } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall, remember } from "../../lib/storage";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { day, type Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import ActionBar from "../../parts/ActionBar.svelte";
  import Who from "../../parts/fields/Who.svelte";
  import FaultPages from "./FaultPages.svelte";
  import { DEGREES, known } from "./known.svelte";
  import SignTile from "./SignTile.svelte";

  type Told = TroubleInput["symptoms"];
  const asked = new URLSearchParams(router.querystring ?? "");
  const began = (asked.get("from") ?? "signs") as NonNullable<TroubleInput["began"]>;

  let told = $state<Told>(
    Object.fromEntries(
      (asked.get("signs") ?? "")
        .split(",")
        .filter(Boolean)
        .map((k) => [k, "clear"]),
    ),
  );
  let saw_id = $state<number | null>(currentJob.draft.saw_id ?? shop.saws[0]?.id ?? null);
  let band_id = $state<number | null>(currentJob.draft.band_id);
  let bands = $state.raw<BandAnswer[]>([]);
  let open = $state.raw<TroubleLine[]>([]);
  let who = $state(recall("who", ""));
  let fault = $state<Said>("");
  let busy = $state(false);

  const count = $derived(Object.values(told).filter((d) => d !== "absent").length);
  const saw = $derived(shop.saw(saw_id));
  const fitting = $derived(
    bands.filter(
      (b) =>
        b.state === "rack" &&
        (!saw ||
          (b.length_mm >= (saw.saw.band_length_mm[0] ?? 0) &&
            b.length_mm <= (saw.saw.band_length_mm[1] ?? Infinity))),
    ),
  );

  async function load(): Promise<void> {
    await known.load();
    const [rack, book] = await Promise.all([
      ask(client.GET("/api/bands")),
      ask(client.GET("/api/faults")),
    ]);
    bands = rack;
    open = book.troubles.filter((t) => t.state === "open" || t.state === "watching");
    if (band_id === null) band_id = saw?.mounted_band_id ?? null;
  }
  load().catch((p: unknown) => notice.fail(p));

  /** The sign tapped last: what tells it from its neighbour is said. */
  let last = $state("");

  function pick(key: string): void {
    last = told[key] === undefined ? key : "";
    if (told[key] === undefined) told = { ...told, [key]: "clear" };
    else told = Object.fromEntries(Object.entries(told).filter(([k]) => k !== key)) as Told;
  }

  async function find(): Promise<void> {
    if (saw_id === null) return;
    busy = true;
    remember("who", who);
    const mine = currentJob.id !== null && currentJob.draft.saw_id === saw_id;
    try {
      const trouble = await ask(
        client.POST("/api/faults", {
          body: {
            saw_id,
            band_id,
            job_id: mine ? currentJob.id : null,
            began,
            symptoms: told,
            who,
          },
        }),
      );
      await push(`/faults/${trouble.id}`);
    } catch (problem) {
      fault = wordsOf(problem);
    } finally {
      busy = false;
    }
  }
</script>

<FaultPages title="What do you see, hear or feel?" />
<div class="where">
  <label
    >Saw<select
      value={saw_id}
      onchange={(e) => {
        saw_id = Number(e.currentTarget.value);
        band_id = shop.saw(saw_id)?.mounted_band_id ?? null;
      }}
    >
      {#each shop.saws as s (s.id)}<option value={s.id}>{s.saw.name}</option>{/each}
    </select></label
  >
  <label
    >Band<select
      value={band_id ?? ""}
      onchange={(e) => (band_id = Number(e.currentTarget.value) || null)}
    >
      <option value="">not known</option>
      {#each fitting as b (b.id)}<option value={b.id}>{b.label}</option>{/each}
    </select></label
  >
  <Who value={who} onpick={(name) => (who = name)} />
</div>
{#if open.length > 0}
  <ul class="open" aria-label="Not closed yet">
    {#each open as t (t.id)}
      <li>
        <a href="#/faults/{t.id}">{t.signs.join(", ")}</a>
        <span class="soft"
          >{t.saw}{t.band ? `, ${t.band}` : ""}, {day(t.at)}{t.state === "watching"
            ? ": did it go?"
            : t.likely
              ? `: ${t.likely}`
              : ""}</span
        >
      </li>
    {/each}
  </ul>
{/if}
{#each known.groups as group (group.name)}
  <section aria-label={group.name}>
    <h2>{group.name}</h2>
    <ul class="tiles">
      {#each group.signs as sign (sign.key)}
        <li><SignTile {sign} degree={told[sign.key]} onpick={() => pick(sign.key)} /></li>
      {/each}
    </ul>
  </section>
{/each}
<ActionBar>
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if known.sign(last)}<p class="look" role="status">{known.sign(last)?.look}</p>{/if}
  <div class="bar">
    <ul class="told" aria-label="Told" aria-live="polite">
      {#each Object.entries(told) as [key, degree] (key)}
        <li>
          <label
            >{known.sign(key)?.name ?? key}
            <select
              value={degree}
              onchange={(e) => (told = { ...told, [key]: e.currentTarget.value as Told[string] })}
            >
              {#each DEGREES as [d, words] (d)}<option value={d}>{words}</option>{/each}
            </select></label
          >
          <button
            type="button"
            aria-label="Not {known.sign(key)?.name ?? key}"
            onclick={() => pick(key)}>×</button
          >
        </li>
      {:else}
        <li class="soft">Two or three are enough.</li>
      {/each}
    </ul>
    <Action main disabled={count === 0 || saw_id === null || busy} onclick={() => void find()}
      >Find the cause</Action
    >
  </div>
</ActionBar>

<style>
  h2 {
    padding-top: var(--s4);
  }
  .tiles {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(7.5rem, 1fr));
    gap: var(--s3);
    padding-top: var(--s2);
  }
  @media (max-width: 30em) {
    .tiles {
      grid-template-columns: repeat(auto-fill, minmax(6.25rem, 1fr));
      gap: var(--s2);
    }
  }
  .open {
    display: grid;
    border-left: var(--s2) solid var(--brass);
    padding-left: var(--s3);
  }
  .open li {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s3);
    align-items: center;
    min-height: var(--touch);
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: end;
  }
  .told {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    flex: 1 1 12rem;
    align-items: end;
    min-height: var(--touch);
  }
  .told li {
    display: flex;
    align-items: end;
  }
  .where {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: end;
    padding-bottom: var(--s3);
  }
  label {
    gap: var(--s1);
  }
  select {
    max-width: 12rem;
  }
  .told button {
    min-width: var(--touch);
    min-height: var(--touch);
    font-size: var(--text-large);
  }
  .look {
    max-width: 60rem;
  }
</style>
