<script lang="ts">
  import type { BandPage } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { span } from "../../../lib/figures/units";

  /** How many more cuts of the kinds it made lately: nine in ten edges the least, one the most. */
  const { page }: { page: BandPage } = $props();
  const range = (low: number, high: number) => span(low, high, "plain", "metric");
</script>

{#if page.left.length > 0 && page.band.state !== "scrapped"}
  <section aria-label="Cuts left">
    <h2>Cuts left</h2>
    <ul>
      {#each page.left as cut (cut.material + cut.height_mm)}
        <li>
          <span
            >{shop.materialName(cut.material)}, {shop.say(cut.height_mm, "length")} high, {shop.say(
              cut.length_mm,
              "long",
            )} long</span
          >
          <strong class="mono">{range(Math.floor(cut.least), Math.ceil(cut.most))} cuts</strong>
          <span class="mono soft"
            >{shop.span({ low: cut.m2_least, high: cut.m2_most }, "area")} {shop.unit("area")}</span
          >
        </li>
      {/each}
    </ul>
    <p class="soft">From what nine in ten such edges still cut to what one in ten does.</p>
  </section>
{/if}

<style>
  section {
    padding-top: var(--s5);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    align-items: baseline;
    padding: var(--s1) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  li span:first-child {
    flex: 1 1 16rem;
  }
</style>
