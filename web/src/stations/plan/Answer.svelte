<script lang="ts">
  import type { Explained, FeedFigures, Option, PlanAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { duration } from "../../lib/figures/units";
  import Figure from "../../parts/Figure.svelte";

  interface Props {
    answer: PlanAnswer;
    best: Option;
    explained: Readonly<Record<string, Explained>>;
    feed: number;
    figures: FeedFigures;
    /** Pieces of the lot. */
    count: number;
  }
  const { answer, best, explained, feed, figures, count }: Props = $props();

  const band = $derived(best.band);
  const tpi = $derived(shop.tpi(band));
  const form = $derived(band.form_name.split(" (")[0]);
  const why = $derived(answer.reasons.flatMap((r) => r.gist || []).join("; "));
  const cheapest = $derived(best.spread.chance_words);
</script>

<section class="band-answer" aria-label="The band">
  <p class="band mono">
    <span
      >{shop.number(band.width_mm, "length")} × {shop.number(band.thickness_mm, "thin")}
      <small>{shop.unit("length")}</small></span
    >
    {#if tpi}<span>{tpi} <small>TPI</small></span>{/if}
  </p>
  <p class="which">
    {form} tooth, {shop.steel(band.steel)}.
    {#if band.band_id}<a href="#/rack/{band.band_id}">{band.label}</a>{band.mounted
        ? ", on the saw now"
        : band.place
          ? `, ${band.place}`
          : ""}, {band.edge}.{/if}
  </p>
  <div class="figures">
    <Figure
      label="tension"
      value={shop.number(best.stress_MPa, "stress")}
      unit={shop.unit("stress")}
      note="{shop.say(best.gauge_stretch_um, 'stretch')} on the gauge"
      explained={explained.tension}
    />
    <Figure
      label="band speed"
      value={shop.number(best.speed_m_s, "speed")}
      unit={shop.unit("speed")}
      note={shop.words(best.speed_setting)}
      explained={explained.speed}
    />
    <Figure
      label="feed"
      value={shop.number(feed, "feed")}
      unit={shop.unit("feed")}
      note="{shop.span(best.spread.feed, 'feed')} works · {duration(figures.piece_time_s)} a cut"
      explained={explained.feed}
    />
  </div>
  <p class="why">
    {why}. <strong>{shop.moneySpan(figures.spread.cost)} a piece</strong>{cheapest
      ? `, cheapest: ${cheapest}`
      : ""}; {figures.lot.words}. {duration(60 * figures.lot.minutes)} for all
    {count}.
  </p>
</section>

<style>
  .band-answer {
    container-type: inline-size;
  }
  .band {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s5);
    font-size: min(var(--figure-large), 7.5cqi);
    font-weight: 700;
    letter-spacing: -0.045em;
    line-height: 1.1;
  }
  .band span {
    white-space: nowrap;
  }
  small {
    font-size: var(--text-large);
    font-weight: 400;
    color: var(--ink-soft);
  }
  .which {
    padding: var(--s1) 0 var(--s2);
  }
  .figures {
    display: grid;
    grid-template-columns: 1.15fr 1fr 1fr;
    border-top: var(--rule) solid var(--ink);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .figures > :global(* + *) {
    border-left: var(--hair) solid var(--hairline);
    padding-left: var(--s4);
  }
  .figures > :global(*) {
    padding-block: var(--s1);
    height: 100%;
  }
  .why {
    padding: var(--s2) 0;
  }
  @media (max-width: 30em) {
    .figures {
      grid-template-columns: 1fr 1fr;
    }
    .figures > :global(:nth-child(3)) {
      border-left: 0;
      padding-left: 0;
    }
  }
</style>
