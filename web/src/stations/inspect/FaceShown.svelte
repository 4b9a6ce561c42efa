<script lang="ts">
  import type { FaceAnswer, FacePage } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import Term from "../../parts/Term.svelte";
  import Parts from "./Parts.svelte";
  import Relief from "./Relief.svelte";

  interface Props {
    page: FacePage;
    /** The face shown; null before any is read. */
    face: FaceAnswer | null;
    /** The one beside it on the same axes. */
    before: FaceAnswer | null;
  }
  const { page, face, before }: Props = $props();
  const gradeName = (grade: number) =>
    shop.reference?.roughness.find((r) => r.grade === grade)?.name ?? "";
  const PARTS = ["taper", "lean", "barrel", "waves"];
  /** Signs that this face shows: parts surely over the tolerance, and ridges. */
  const wrong = $derived([
    ...(face?.face.parts ?? [])
      .filter((p) => p.verdict === "over" && PARTS.includes(p.key))
      .map((p) => p.key),
    ...(face?.ridges ? ["fine_marks"] : []),
  ]);
  const whole = (share: number) => `${Math.round(100 * share)} %`;
</script>

{#if face}
  {#if face.advice}
    <div class="advice">
      <p><strong>{shop.words(face.advice.change)}</strong></p>
      <p>{face.advice.cause}</p>
    </div>
  {:else}
    <p class="fine">
      <strong>{face.face.words}</strong>
    </p>
  {/if}
  {#if face.judgement}
    <p class="judged" data-ready={face.judgement.ready}>
      <strong>{face.judgement.words}</strong>
      <span class="soft"
        >A trial on {face.trial_name}; the job’s own wood takes {shop.number(
          face.judgement.push_ratio,
          "plain",
        )} times its push.</span
      >
    </p>
  {/if}
  <Relief {face} />
  {#if face.roughness}
    <p>
      <strong>{gradeName(face.roughness.grade)}:</strong>
      {face.roughness.words}
    </p>
  {/if}
  {#if face.ridges}
    <p>
      <strong><Term key="waves">Ridges</Term> {shop.say(face.ridge_mm ?? 0, "thin")} apart:</strong>
      <span class="mono">{shop.number(face.ridges.frequency_Hz, "plain")} Hz</span>.
      {face.ridge_words}
    </p>
  {/if}
  <Parts {face} {before} usual={page.tolerance_usual} />
  {#if wrong.length > 0}
    <p><a class="find" href="#/faults?from=inspect&signs={wrong.join(',')}">Find the cause</a></p>
  {/if}
  <p class="soft">
    {face.band_label} on {face.saw_name} at
    <span class="mono">{shop.say(face.feed_m_min, "feed")}</span>{#if face.feed_force_N !== null},
      <Term key="push">pushed</Term> with about
      <span class="mono">{shop.say(face.feed_force_N, "force")}</span>{/if}.
  </p>
{:else}
  <p class="soft">
    Measure a sawn piece with the caliper: its parts come back against the job’s tolerance, with the
    one thing to change.
  </p>
{/if}
{#if face?.edge_moved}
  <p>
    It makes {face.band_label} <strong class="mono">{whole(face.edge_moved.after)}</strong> used
    instead of <span class="mono">{whole(face.edge_moved.before)}</span>.
  </p>
{/if}
{#if face?.moved}
  <p>
    This face moved the push aside from <span class="mono"
      >{shop.number(face.moved.before, "plain")}</span
    >
    to <strong class="mono">{shop.number(face.moved.after, "plain")}</strong> times the usual; taken back,
    it is unlearned.
  </p>
{/if}
{#if page.trend}<p data-trend={page.trend.verdict}>{page.trend.words}</p>{/if}
{#if page.side && page.side.doubted > 0}
  <p class="soft">
    {page.side.doubted === 1 ? "One face is" : `${page.side.doubted} faces are`} far from the usual and
    left out until others agree: was it that feed?
  </p>
{/if}
{#if page.side && page.side.faces > 0}
  <p>
    {page.side.faces === 1 ? "One face" : `${page.side.faces} faces`} of this saw: the wood pushes its
    band <Term key="drift">aside</Term>
    <strong class="mono">{shop.number(page.side.factor, "plain")}</strong>
    times as much as usual (eight in ten: {shop.number(page.side.low, "plain")} to {shop.number(
      page.side.high,
      "plain",
    )}). Plan reckons with it.
  </p>
{/if}

<style>
  .find {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    font-weight: 650;
  }
  .judged {
    padding: var(--s2) var(--s4);
    border-left: var(--s2) solid var(--ink-soft);
    background: var(--paper);
  }
  .judged[data-ready="true"] {
    border-left-color: var(--jade);
  }
  [data-trend="growing"] {
    color: var(--vermilion);
    font-weight: 600;
  }
  .advice {
    padding: var(--s3) var(--s4);
    border-left: var(--s2) solid var(--vermilion);
    background: var(--paper);
    margin-bottom: var(--s3);
  }
  .advice p {
    margin: 0;
  }
</style>
