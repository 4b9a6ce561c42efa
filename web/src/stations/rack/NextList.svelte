<script lang="ts">
  import { ask, client } from "../../api/client";
  import type { NextLine } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";

  /** Bands that want something done, danger first. Nothing where none does, or no network is. */
  const MOST = 6;
  let lines = $state<NextLine[]>([]);
  let all = $state(false);
  ask(client.GET("/api/rack/next"))
    .then((found) => (lines = found))
    .catch(() => undefined);
  const shown = $derived(all ? lines : lines.slice(0, MOST));
</script>

{#if lines.length > 0}
  <section aria-label="Wants doing">
    <h2>Wants doing</h2>
    <ul class="rows">
      {#each shown as line (line.band_id)}
        <li data-do={line.do}>
          <a class="mono" href="#/rack/{line.band_id}">{line.label}</a>
          <span>{shop.words(line.words)}</span>
          <span class="mono worth">{line.worth === null ? "" : shop.money(line.worth)}</span>
        </li>
      {/each}
    </ul>
    {#if lines.length > MOST}
      <button type="button" onclick={() => (all = !all)}
        >{all ? "Fewer" : `All ${lines.length}`}</button
      >
    {/if}
  </section>
{/if}

<style>
  li {
    grid-template-columns: 6rem 1fr auto;
  }
  a {
    font-weight: 650;
  }
  [data-do="mend"] span:first-of-type,
  [data-do="look"] span:first-of-type {
    color: var(--vermilion);
    font-weight: 600;
  }
  button {
    min-height: var(--touch);
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
</style>
