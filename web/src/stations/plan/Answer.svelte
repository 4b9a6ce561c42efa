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
  }
  const { answer, best, explained, feed, figures }: Props = $props();

  const band = $derived(best.band);
  const pitch = $derived(
    band.tpi_lo === null || band.tpi_hi === null
      ? null
      : band.tpi_lo === band.tpi_hi
        ? `${band.tpi_lo}`
        : `${band.tpi_lo}–${band.tpi_hi}`,
  );
  const form = $derived(band.form_name.split(" (")[0]);
  const steel = $derived(band.steel_name.split(" (")[0]?.toLowerCase());
  const SHOWN = ["width", "pitch", "steel", "stiffness"];
  const reasons = $derived(answer.reasons.filter((r) => SHOWN.includes(r.key)));
  /** What following the width rule costs, where it costs anything. */
  const houseRule = $derived(
    answer.rules.find((r) => r.rule === "resaw_width" && r.why.includes("Costs"))?.why ?? "",
  );
  const second = $derived(answer.alternatives[0]);
  const atRecommended = $derived(feed === best.figures.feed_m_min);
  const sure = $derived(answer.sure);
  /** Where the measurement is made. */
  const surerPlace = $derived(
    sure?.surer_place === "rack" && sure.surer_band_id !== null
      ? `#/rack/${sure.surer_band_id}`
      : sure?.surer_place === "saw"
        ? `#/shop/saws/${answer.saw_id}`
        : "#/shop",
  );
</script>

<section class="band-answer" aria-label="The band">
  <p class="band mono">
    <span
      >{shop.number(band.width_mm, "length")} × {shop.number(band.thickness_mm, "thin")}
      <small>{shop.unit("length")}</small></span
    >
    {#if pitch}<span>{pitch} <small>tpi</small></span>{/if}
  </p>
  <p class="which">
    {form} tooth, {steel}.
    {#if band.band_id}<a href="#/rack/{band.band_id}">{band.label}</a>{band.place
        ? `, ${band.place}`
        : ""}{band.mounted ? ", on the saw now" : ""}, {band.edge}.{/if}
  </p>
  <div class="figures">
    <Figure
      label="tension"
      value={shop.number(best.stress_MPa, "stress")}
      unit={shop.unit("stress")}
      note="{shop.say(best.gauge_stretch_um, 'stretch')} on a {shop.say(
        shop.settings?.gauge_length_mm ?? 100,
        'length',
      )} gauge"
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
      value={atRecommended ? shop.span(best.spread.feed, "feed") : shop.number(feed, "feed")}
      unit={shop.unit("feed")}
      note={atRecommended
        ? `aim at ${shop.number(feed, "feed")}, ${duration(figures.piece_time_s)} a piece`
        : `${duration(figures.piece_time_s)} a piece`}
      explained={explained.feed}
    />
  </div>
  <dl>
    {#each reasons as reason (reason.key)}
      <div>
        <dt>{reason.key}</dt>
        <dd>{shop.words(reason.text)}</dd>
      </div>
    {/each}
    {#if answer.slices}
      <div data-bad={!answer.slices.enough}>
        <dt>slices</dt>
        <dd>{shop.words(answer.slices.words)}</dd>
      </div>
    {/if}
    {#if second && !sure?.too_close}
      <div>
        <dt>runner-up</dt>
        <dd>
          {shop.bandName(second.band)}, {shop.number(second.band.width_mm, "length")} × {shop.number(
            second.band.thickness_mm,
            "thin",
          )}: {shop.words(second.difference)}.
        </dd>
      </div>
    {/if}
    {#if houseRule}<div>
        <dt>house rule</dt>
        <dd>{shop.words(houseRule)}</dd>
      </div>{/if}
    {#if sure && (sure.too_close || sure.surer)}<div>
        <dt>sure?</dt>
        <dd>
          {sure.too_close}
          {sure.settles}
          {#if sure.surer}<a href={surerPlace}>{sure.surer}</a>{/if}
        </dd>
      </div>{/if}
    {#if answer.assumed.length > 0}
      <div>
        <dt>assumed</dt>
        <dd>
          of {answer.saw_name}, until somebody reads it off: {answer.assumed.join(", ")}.
          <a href="#/shop/saws/{answer.saw_id}">Read off</a>
        </dd>
      </div>
    {/if}
  </dl>
</section>

<style>
  .band-answer {
    container-type: inline-size;
  }
  [data-bad="true"] dd {
    color: var(--vermilion);
    font-weight: 650;
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
  dl div {
    display: grid;
    grid-template-columns: 5.75rem 1fr;
    gap: var(--s3);
    padding: var(--s1) 0;
    font-size: var(--text-small);
    line-height: 1.35;
    border-bottom: var(--hair) solid var(--hairline);
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
