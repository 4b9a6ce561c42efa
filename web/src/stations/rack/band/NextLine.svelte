<script lang="ts">
  import type { BandPage } from "../../../api/schema";
  import { called } from "../../../lib/forms";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";
  import EdgeTip from "../../../parts/pictures/EdgeTip.svelte";

  interface Props {
    page: BandPage;
    /** Does what the line says, where a tap is enough. */
    ondo: (what: BandPage["next"]["do"]) => void;
  }
  const { page, ondo }: Props = $props();
  const TAPS: Partial<Record<BandPage["next"]["do"], string>> = {
    clean: "Cleaned",
    look: "Looked, nothing wrong",
    ask: "Still good",
    sharpen: "Record a sharpening",
    demote: "Keep it for rough work",
    mend: "Record the mending",
  };
  const tap = $derived(page.next.do === "scrap" ? called("event", "scrapped") : TAPS[page.next.do]);
  const doubt = $derived(Math.max(1, Math.round(100 * page.band.dullness_sd)));
</script>

<section class="next" data-do={page.next.do} aria-label="What next">
  {#if page.band.state !== "scrapped"}
    <p class="edge">
      <EdgeTip edge={page.band.edge} radius_um={page.band.tip_radius_um} />
      <span class="soft"
        >{Math.round(100 * Math.min(page.band.dullness, 2))} ± {doubt} % of its life used</span
      >
    </p>
  {/if}
  <p class="words">
    <strong>{shop.words(page.next.words)}</strong>
    {#if page.next.worth !== null}
      <span class="mono">{shop.money(page.next.worth)}</span>
      <span class="soft">{page.next.worth_words}</span>
    {/if}
  </p>
  {#if tap}<Action main onclick={() => ondo(page.next.do)}>{tap}</Action>{/if}
</section>

<style>
  .next {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s5);
    align-items: center;
    padding: var(--s3) 0;
    border-top: var(--rule) solid var(--ink);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .edge {
    display: grid;
    font-weight: 650;
  }
  .edge .soft {
    font-weight: 400;
  }
  .words {
    flex: 1 1 20rem;
    font-size: var(--text-large);
  }
  .words .soft {
    font-size: var(--text);
  }
  [data-do="mend"] .words strong,
  [data-do="look"] .words strong {
    color: var(--vermilion);
  }
</style>
