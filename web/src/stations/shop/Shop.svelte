<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import { day } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Due from "../upkeep/Due.svelte";
  import ShopPages from "./ShopPages.svelte";
</script>

<ShopPages title="Shop" />
{#if shop.ready}
  <section>
    <div class="head">
      <h2>Saws</h2>
      <Action main href="#/shop/saws/new">Add a saw</Action>
    </div>
    <ul>
      {#each shop.saws as saw (saw.id)}
        <li>
          <a href="#/shop/saws/{saw.id}">
            <strong>{saw.saw.name}</strong>
            <span class="soft">
              {saw.saw.orientation}, wheels {saw.saw.wheel_diameters_mm
                .map((d) => shop.number(d, "length"))
                .join(" + ")}
              {shop.unit("length")}, bands {saw.saw.band_length_mm
                .map((d) => shop.number(d, "length"))
                .join(" to ")} long
            </span>
            <span>
              {#if saw.mounted_label}<span class="mono">{saw.mounted_label}</span>
                {saw.tension_state === "on" ? "under tension" : "slack"}{saw.tension_since
                  ? ` since ${day(saw.tension_since)}`
                  : ""}{:else}no band on it{/if}
            </span>
          </a>
          <span>
            <a class="stands" href="#/shop/saws/{saw.id}/stand">as it stands</a>
            <a class="stands" href="#/shop/saws/{saw.id}/upkeep">upkeep</a>
          </span>
        </li>
      {:else}
        <li class="soft">No saw yet. One is enough to start.</li>
      {/each}
    </ul>
  </section>
  {#if shop.considered.length > 0}
    <section>
      <h2>Considered, not owned</h2>
      <ul>
        {#each shop.considered as saw (saw.id)}
          <li>
            <a href="#/shop/saws/{saw.id}">
              <strong>{saw.saw.name}</strong>
              <span class="soft"
                >bands {saw.saw.band_width_mm.map((w) => shop.number(w, "length")).join(" to ")} wide,
                {shop.say(saw.saw.height_mm, "length")} high</span
              >
            </a>
            <span
              ><a class="stands" href="#/shop/saws/{saw.id}/considered">ask it with my jobs</a
              ></span
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <Due />
{/if}

<style>
  .head {
    display: flex;
    gap: var(--s5);
    align-items: center;
    padding-bottom: var(--s2);
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: var(--s4);
    align-items: center;
    border-top: var(--hair) solid var(--hairline);
  }
  li .stands {
    display: inline-flex;
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  li a {
    display: grid;
    grid-template-columns: 14rem 1.6fr 1fr;
    gap: var(--s3);
    align-items: center;
    min-height: 3.25rem;
    color: inherit;
    text-decoration: none;
  }
  li a:hover strong {
    text-decoration: underline;
  }
  @media (max-width: 56.25em) {
    li a {
      grid-template-columns: 1fr;
      gap: var(--s1);
    }
  }
</style>
