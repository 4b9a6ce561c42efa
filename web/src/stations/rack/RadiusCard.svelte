<script lang="ts">
  import RackPages from "./RackPages.svelte";
  import { askPatiently, client } from "../../api/client";
  import type { TurningBand } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";

  let bands = $state<TurningBand[] | null>(null);
  askPatiently(() => client.GET("/api/radius-card"))
    .then((found) => (bands = found))
    .catch((p: unknown) => notice.fail(p));

  const W = 520;
  const H = 440;
  /** The drawing takes bands up to this radius; wider ones stand in the list. */
  const most = $derived(
    Math.min(400, Math.max(60, ...(bands ?? []).map((b) => b.tightest_mm).filter((r) => r < 400))),
  );
  const k = $derived((H - 20) / most);
  const shown = $derived((bands ?? []).filter((b) => b.tightest_mm <= most));
</script>

<header>
  <RackPages title="Radius card" />
  <p class="soft">What each band on this rack turns, from its own kerf and width.</p>
  <div class="no-print actions">
    <Action main href="/radius-card.pdf">PDF at true size</Action>
    <Action href="/radius-card.svg">SVG</Action>
    <Action href="#/rack">Rack</Action>
  </div>
</header>
{#if bands}
  <div class="card">
    <svg
      viewBox="0 0 {W} {H}"
      role="img"
      aria-label="Quarter circles of the tightest radius of each band"
    >
      <path class="axis" d="M1 1H{W}M1 1V{H}" />
      {#each shown as band (band.band_id)}
        {@const r = band.tightest_mm * k}
        <path class="arc" d="M{r} 0A{r} {r} 0 0 1 0 {r}" />
      {/each}
    </svg>
    <table>
      <thead>
        <tr><th>band</th><th>width</th><th>kerf</th><th>tightest</th><th>comfortable</th></tr>
      </thead>
      <tbody>
        {#each bands as band (band.band_id)}
          <tr>
            <td><a href="#/rack/{band.band_id}" class="mono">{band.label}</a></td>
            <td class="mono"
              >{shop.number(band.width_mm, "length")} × {shop.number(band.thickness_mm, "thin")}</td
            >
            <td class="mono"
              >{shop.number(band.kerf_mm, "thin")} <span class="soft">{band.set_source}</span></td
            >
            <td class="mono big">{shop.number(Math.round(band.tightest_mm), "length")}</td>
            <td class="mono"
              >{shop.number(Math.round(band.comfortable_mm), "length")} {shop.unit("length")}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="soft">
    Radius, not diameter. More set turns tighter; a measured set wins over the table’s. Set is known
    to 15 %, and the radius with it. In green stock or over {shop.say(75, "length")} deep take more.
  </p>
{:else}
  <p class="soft">Reading the rack …</p>
{/if}

<style>
  header {
    padding-bottom: var(--s3);
  }
  .actions {
    padding-top: var(--s2);
  }
  .card {
    display: grid;
    grid-template-columns: minmax(16rem, 1fr) minmax(24rem, 1.3fr);
    gap: var(--s6);
    align-items: start;
  }
  svg {
    width: 100%;
  }
  .axis {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .arc {
    fill: none;
    stroke: var(--jade);
    stroke-width: 1.6;
  }
  th {
    font-weight: 400;
    color: var(--ink-soft);
  }
  th,
  td {
    padding: var(--s2) var(--s1) var(--s2) 0;
  }
  .big {
    font-size: var(--text-large);
    font-weight: 700;
  }
  @media (max-width: 56.25em) {
    .card {
      grid-template-columns: 1fr;
    }
    td .soft {
      display: none;
    }
  }
</style>
