<script lang="ts">
  import { untrack } from "svelte";
  import { push, router } from "svelte-spa-router";

  import { askPatiently, client } from "../../api/client";
  import type { BandAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall, remember } from "../../lib/storage";
  import { isKept } from "../../lib/edit.svelte";
  import Action from "../../parts/Action.svelte";
  import EdgeTip from "../../parts/pictures/EdgeTip.svelte";
  import BandForm from "./BandForm.svelte";
  import NextList from "./NextList.svelte";
  import RackPages from "./RackPages.svelte";
  import { matches, SORTS, type Filter, type SortKey } from "./sorting";

  const SHOWN_AT_FIRST = 20;
  let bands = $state<BandAnswer[] | null>(null);
  // A band begun and not saved is gone on with.
  let adding = $state(isKept("band.new") || router.location === "/rack/new");
  let text = $state("");
  let filter = $state<Filter>(
    recall<Filter>("rack.filter", { saw: null, edge: null, gone: false }),
  );
  let sort = $state<SortKey>(recall<SortKey>("rack.sort", "label"));
  let most = $state(SHOWN_AT_FIRST);

  const PAGE = 200;
  /** Scrapped bands are read when they are asked for, a page at a time. */
  let scrapped = $state.raw<BandAnswer[] | null>(null);
  let olderScrapped = $state(false);

  async function load(): Promise<void> {
    bands = await askPatiently(() => client.GET("/api/bands"));
  }

  async function readScrapped(): Promise<void> {
    const last = scrapped?.at(-1)?.id;
    const query = { scrapped: true, ...(last === undefined ? {} : { before: last }) };
    const found = await askPatiently(() => client.GET("/api/bands", { params: { query } }));
    scrapped = [...(scrapped ?? []), ...found];
    olderScrapped = found.length === PAGE;
  }
  // What is asked for is read from the shop.
  $effect(() => {
    if (filter.gone && untrack(() => scrapped === null))
      readScrapped().catch((p: unknown) => notice.fail(p));
  });
  void load().catch((p: unknown) => notice.fail(p));

  const fits = $derived(shop.saw(filter.saw)?.saw.band_length_mm as [number, number] | undefined);
  /** A band scrapped since the list was read is in both. */
  const every = $derived([
    ...new Map(
      [...(bands ?? []), ...(filter.gone ? (scrapped ?? []) : [])].map((b) => [b.id, b]),
    ).values(),
  ]);
  const shown = $derived(every.filter((b) => matches(b, text, filter, fits)).sort(SORTS[sort].by));
  const EDGES = ["keen", "fair", "tired", "spent"];

  function set(change: Partial<Filter>): void {
    filter = { ...filter, ...change };
    most = SHOWN_AT_FIRST;
    remember("rack.filter", filter);
  }

  function order(key: SortKey): void {
    sort = key;
    remember("rack.sort", key);
  }

  function where(band: BandAnswer): string {
    if (band.mounted_on) {
      const state = { on: "under tension", slack: "slack", unknown: "tension not recorded" };
      return `on ${band.mounted_on}, ${state[band.tension_state as keyof typeof state] ?? ""}`;
    }
    if (band.state === "scrapped") return `scrapped: ${band.scrap_reason ?? ""}`;
    return band.state === "out" ? "out for sharpening" : band.place || "no place";
  }
</script>

<RackPages title="Rack" />
<header>
  <Action main onclick={() => (adding = !adding)}>Add a band</Action>
  <Action href="#/rack/list">Bands from a list</Action>
  <!-- Last, so that its coming moves nothing that a finger is on its way to. -->
  <p class="soft">
    {#if bands}{shown.length} of {bands.length} bands{/if}
  </p>
</header>
{#if adding}
  <BandForm
    ondone={(band) => {
      adding = false;
      if (band) void push(bands?.length ? `/rack/${band.id}` : "/start");
    }}
  />
{/if}
<div class="filters">
  <label>
    Find on the rack
    <input bind:value={text} autocomplete="off" placeholder="K-07, 19 mm, hook …" />
  </label>
  <label>
    Fits
    <select
      value={String(filter.saw)}
      onchange={(e) => set({ saw: Number(e.currentTarget.value) || null })}
    >
      <option value="null">any saw</option>
      {#each shop.saws as saw (saw.id)}<option value={String(saw.id)}>{saw.saw.name}</option>{/each}
    </select>
  </label>
  <div class="edges" role="group" aria-label="Edge">
    {#each EDGES as edge (edge)}
      <button
        type="button"
        aria-pressed={filter.edge === edge}
        onclick={() => set({ edge: filter.edge === edge ? null : edge })}>{edge}</button
      >
    {/each}
    <button type="button" aria-pressed={filter.gone} onclick={() => set({ gone: !filter.gone })}
      >scrapped too</button
    >
  </div>
  <label>
    Sort by
    <select value={sort} onchange={(e) => order(e.currentTarget.value as SortKey)}>
      {#each Object.entries(SORTS) as [key, { name }] (key)}<option value={key}>{name}</option
        >{/each}
    </select>
  </label>
</div>
{#if bands && bands.length > 0}<NextList />{/if}
{#if !bands}
  <p class="soft">Reading the rack …</p>
{:else if bands.length === 0}
  <p>
    The rack is empty. Add the band that is on the saw now: its width and teeth are enough. Or bring
    in many <a href="#/rack/list">from a list</a>.
  </p>
{:else}
  <ul class="bands">
    {#each shown.slice(0, most) as band (band.id)}
      <li data-gone={band.state === "scrapped"}>
        <a href="#/rack/{band.id}">
          <strong class="label mono">{band.label}</strong>
          <span class="mono size"
            >{shop.number(band.width_mm, "length")} × {shop.number(band.thickness_mm, "thin")}</span
          >
          <span class="mono"
            >{band.tpi_lo === null
              ? "–"
              : band.tpi_lo === band.tpi_hi
                ? band.tpi_lo
                : `${band.tpi_lo}–${band.tpi_hi}`}</span
          >
          <span>{shop.form(band.form)}, {shop.steel(band.steel)}</span>
          <span class="mono">{shop.say(band.length_mm, "length")}</span>
          <EdgeTip edge={band.edge} radius_um={band.tip_radius_um} />
          <span class="life" aria-label="{Math.round(100 * band.life_left_share)} percent left"
            ><i style:width="{100 * band.life_left_share}%"></i></span
          >
          <span class="where" data-on={band.mounted_on !== null}>{where(band)}</span>
        </a>
      </li>
    {/each}
  </ul>
  {#if shown.length > most}
    <Action onclick={() => (most += 200)}>Show {Math.min(shown.length - most, 200)} more</Action>
  {/if}
  {#if filter.gone && olderScrapped}
    <Action onclick={() => void readScrapped()}>Older scrapped bands</Action>
  {/if}
  {#if shown.length === 0}<p class="soft">No band matches. Clear a filter.</p>{/if}
{/if}

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: var(--s4);
  }
  .filters {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3) var(--s5);
    align-items: end;
    padding: var(--s3) 0;
    border-bottom: var(--rule) solid var(--ink);
  }
  .filters label {
    color: var(--ink-soft);
  }
  input,
  select {
    min-width: 9rem;
  }
  .edges {
    display: flex;
    flex-wrap: wrap;
  }
  .edges button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    border-bottom: var(--rule) solid var(--hairline);
  }
  .edges button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-bottom-color: var(--jade);
    font-weight: 650;
  }
  .bands a {
    display: grid;
    grid-template-columns: 5rem 8rem 4rem minmax(10rem, 1.4fr) 6.5rem 6rem 6rem minmax(9rem, 1.2fr);
    gap: var(--s3);
    align-items: center;
    min-height: 3.25rem;
    color: inherit;
    text-decoration: none;
    border-bottom: var(--hair) solid var(--hairline);
  }
  .bands a:hover {
    background: var(--paper);
  }
  .label {
    font-size: var(--text-large);
  }
  .life {
    height: 0.7rem;
    border: var(--hair) solid var(--ink);
  }
  .life i {
    display: block;
    height: 100%;
    background: var(--jade);
  }
  .where[data-on="true"] {
    font-weight: 650;
  }
  [data-gone="true"] a {
    color: var(--ink-soft);
    text-decoration: line-through;
  }
  @media (max-width: 68.75em) {
    .bands a {
      grid-template-columns: 5rem 1fr 1fr;
      padding: var(--s2) 0;
      gap: var(--s1) var(--s3);
    }
  }
</style>
