<script lang="ts">
  import type { AtOtherSaw } from "../../api/schema";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { shop } from "../../lib/shop.svelte";

  const { saws }: { saws: readonly AtOtherSaw[] } = $props();
</script>

<ul class="rows">
  {#each saws as saw (saw.saw_id)}
    <li>
      <button type="button" onclick={() => currentJob.change({ saw_id: saw.saw_id, band_id: null })}
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
    </li>
  {:else}
    <li class="soft">This is the only one.</li>
  {/each}
</ul>

<style>
  li {
    grid-template-columns: 12rem 1fr auto;
  }
  button {
    min-height: var(--touch);
    padding: 0;
    color: var(--jade);
    text-align: left;
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
</style>
