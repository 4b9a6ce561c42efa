<script lang="ts">
  import { push } from "svelte-spa-router";

  import { ask, client, notThere } from "../../api/client";
  import type { ExcludedBand } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { invalidFields } from "../../lib/invalidFields.svelte";
  import { called } from "../../lib/forms";
  import { fixed, span } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import BandInCurve from "../../parts/pictures/BandInCurve.svelte";
  import BandInWork from "../../parts/pictures/BandInWork.svelte";
  import Cautions from "../../parts/Cautions.svelte";
  import Tilt from "../../parts/pictures/Tilt.svelte";
  import FeedScale from "../../parts/pictures/FeedScale.svelte";
  import Fold from "../../parts/Fold.svelte";
  import HeldBack from "../../parts/HeldBack.svelte";
  import Answer from "./Answer.svelte";
  import Another from "./Another.svelte";
  import Costs from "./Costs.svelte";
  import OtherSaws from "./OtherSaws.svelte";
  import OutlineDrop from "./OutlineDrop.svelte";
  import { PlanState } from "./plan.svelte";
  import EditState from "../../parts/EditState.svelte";
  import { sentenceOf } from "./sentences";
  import Compare from "./Compare.svelte";
  import Sentence from "./Sentence.svelte";
  import Why from "./Why.svelte";
  import Tapped from "../../parts/Tapped.svelte";
  import WhatIfPanel from "./WhatIfPanel.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const plan = new PlanState();

  // The address may name a job: opening it asks the server.
  $effect(() => {
    missing = "";
    if (params?.id?.startsWith("new.")) currentJob.resume(params.id);
    const id = Number(params?.id);
    if (id > 0 && currentJob.job?.id !== id)
      currentJob.open(id).catch((problem: unknown) => {
        missing = notThere(problem);
        if (!missing) notice.fail(problem);
      });
  });
  // Every change of the draft is a question to the server.
  $effect(() => {
    const question = plan.question();
    if (question) void plan.ask(question);
  });

  // The comparison asks the server for its bands whenever they or the cut change.
  $effect(() => {
    const question = plan.question();
    if (question && plan.chosen.length > 0) {
      plan.compare(question, plan.chosen).catch((p: unknown) => notice.fail(p));
    }
  });

  /** Said of a job that is not there. */
  let missing = $state("");
  let another = $state(false);
  const draft = $derived(currentJob.draft);
  const tried = $derived(draft.what_if !== null);
  const best = $derived(plan.answer?.best ?? null);
  const bestId = $derived(best?.band.band_id ?? null);
  const figures = $derived(plan.figures);
  const material = $derived(shop.material(draft.material));
  const metal = $derived(material?.is_metal ?? false);
  const grained = $derived(material?.is_grained ?? false);
  const explained = $derived(plan.answer?.explained ?? {});
  const feed = $derived(plan.feed ?? best?.figures.feed_m_min ?? 0);

  /** The dearest parts of a piece, for the closed fold. */
  const dearest = $derived.by(() => {
    const parts = Object.entries(figures?.cost ?? {}).filter(([key]) => key !== "total");
    const most = parts.sort((a, b) => b[1] - a[1]).slice(0, 2);
    return most.map(([key, money]) => `${called("cost_part", key)} ${fixed(money, 2)}`).join(", ");
  });
  const otherSaw = $derived.by(() => {
    const able = plan.answer?.saws.filter((s) => s.able && s.cost) ?? [];
    const first = able[0];
    if (first?.cost) return `${first.name}, ${shop.moneySpan(first.cost)}`;
    return plan.answer?.saws.length ? "none can" : "none";
  });

  /** Why a band is left out, each reason said in the shop's units. */
  function reasonsOf(band: ExcludedBand): string {
    return band.reasons.map((r) => `${shop.words(r.text).replace(/[.]$/, "")}.`).join(" ");
  }

  async function save(): Promise<boolean> {
    try {
      const job = await currentJob.save();
      if (!job) return false;
      notice.say(`${currentJob.name} is saved.`);
      await push(`/plan/${job.id}`);
      return true;
    } catch (problem) {
      notice.fail(problem);
      return false;
    }
  }

  /** Saves the job and begins its set-up card with a band of the rack. */
  async function setUp(band_id: number | null): Promise<void> {
    if (band_id === null || !(await save()) || currentJob.id === null) return;
    try {
      const body = { job_id: currentJob.id, band_id };
      const { id } = await ask(client.POST("/api/setups", { body }));
      await currentJob.reload();
      await push(`/setup/${id}`);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<EditState edit={currentJob.edit} />
{#if missing}
  <h1>{missing}</h1>
  <div class="actions"><Action main href="#/jobs">All jobs</Action></div>
{:else if shop.saws.length === 0}
  {#await import("../start/Start.svelte") then { default: Start }}<Start />{/await}
{:else}
  <div class="plan" data-stale={plan.stale}>
    <Sentence faults={plan.faults} rules={plan.answer?.rules_offered ?? null} />
    {#if sentenceOf(draft.operation)?.takes_outline}<OutlineDrop />{/if}
    {#if plan.failed}<p class="fault" role="alert">{shop.words(plan.failed)}</p>{/if}
    {#each plan.answer?.defects ?? [] as defect (defect.text)}
      <p class="fault" role="status">
        <strong>{defect.stops ? "A defect stops this saw:" : "Known of this saw:"}</strong>
        {defect.text}
        <a href="#/shop/saws/{plan.answer?.saw_id}/stand">The saw as it stands</a>
      </p>
    {/each}
    <HeldBack />
    {#if plan.answer?.stop}
      <p class="stop" role="alert"><strong>Stop.</strong> {shop.words(plan.answer.stop.text)}</p>
    {:else if plan.answer && !best}
      <p class="stop quiet" role="status">
        <strong>Nothing on the rack can do this on {plan.answer.saw_name}.</strong>
        Nearest: {shop.words(plan.answer.prevented)}
      </p>
      {#if plan.answer.openers.length > 0}
        <ul class="openers" aria-label="What would open it">
          {#each plan.answer.openers as opener (opener.kind)}
            <li>
              {shop.words(opener.text)}.
              {#if typeof opener.height_mm === "number"}
                <button
                  type="button"
                  onclick={() => currentJob.change({ height_mm: opener.height_mm ?? 1 })}
                  >Try {shop.say(opener.height_mm, "length")}</button
                >
              {:else if typeof opener.backing_mm === "number"}
                <button
                  type="button"
                  onclick={() => currentJob.change({ backing_mm: opener.backing_mm ?? 0 })}
                  >Try {shop.say(opener.backing_mm, "length")}</button
                >
              {:else if typeof opener.stack === "number"}
                <button
                  type="button"
                  onclick={() => currentJob.change({ stack: opener.stack ?? 1 })}
                  >Try {opener.stack} together</button
                >
              {:else if typeof opener.min_radius_mm === "number"}
                <button
                  type="button"
                  onclick={() => currentJob.change({ min_radius_mm: opener.min_radius_mm })}
                  >Try {shop.say(opener.min_radius_mm, "length")}</button
                >
              {/if}
            </li>
          {/each}
        </ul>
      {/if}
    {/if}
    {#if plan.answer?.slices && !plan.answer.slices.enough}
      <p class="fault" role="status">{shop.words(plan.answer.slices.words)}</p>
    {/if}
    {#if best && figures && plan.answer}
      <div class="answer" data-held={invalidFields.any}>
        <div class="picture">
          <BandInWork
            band={best.band}
            height_mm={draft.height_mm}
            guard_mm={shop.settings?.guard_gap_mm ?? 10}
            gullet_fill={figures.gullet_fill}
            fill_limit_reached={feed >= (best.window.limits_m_min.gullet ?? Infinity)}
            teeth_in_cut={best.teeth_in_cut}
            material={shop.material(draft.material)?.name ?? ""}
            {metal}
            {grained}
            shape={draft.operation === "tube"
              ? "tube"
              : draft.operation === "mill" || draft.round_stock
                ? "round"
                : "flat"}
            wall_mm={draft.wall_mm}
            log_mm={draft.log_diameter_mm}
          />
        </div>
        <div>
          <Answer answer={plan.answer} {best} {explained} {feed} {figures} count={draft.count} />
          <div class="actions no-print" id="use-it">
            {#if tried}
              <p><strong>Something is only tried out.</strong> Reset what if to set up.</p>
            {:else}
              <Action main disabled={invalidFields.any} onclick={() => void setUp(bestId)}
                >Use it: set up</Action
              >
            {/if}
            <Action expanded={another} onclick={() => (another = !another)}
              >Use another ({plan.answer.alternatives.length})</Action
            >
            <Action onclick={() => void save()} disabled={!currentJob.changed}
              >{currentJob.changed
                ? currentJob.id === null
                  ? "Save for later"
                  : "Save changes"
                : "Saved"}</Action
            >
            {#if currentJob.job?.stock_id}
              <Action href="#/stock/{currentJob.job.stock_id}">Its billet</Action>
            {/if}
          </div>
        </div>
      </div>
      {#if another}
        <Another
          answer={plan.answer}
          chosen={plan.chosen}
          oncompare={(id) => plan.choose(id)}
          onuse={(id) => void setUp(id)}
          held={tried || invalidFields.any}
        />
        {#if plan.chosen.length > 0 && plan.compared.length > 0}
          <Compare compared={plan.compared} onclose={() => (plan.chosen = [])} />
        {/if}
      {/if}
      <section class="feed" data-held={invalidFields.any} aria-label="Feed">
        <p class="holds" aria-live="polite">
          <strong>{figures.held_words}</strong>
          <span>this feed works: {figures.spread.held_words}</span>
          <span data-alert={figures.hot}>bite {shop.say(figures.bite_mm, "thin")}</span>
          <Tapped label="power" explained={explained.power} alert={figures.power_share > 1}
            >{span(
              100 * figures.spread.power_share.low,
              100 * figures.spread.power_share.high,
              "plain",
              "metric",
            )} %</Tapped
          >
          <Tapped label="push" explained={explained.push}
            >{shop.span(figures.spread.push_N, "force")} {shop.unit("force")}</Tapped
          >
          <span>face: {figures.finish}</span>
        </p>
        <FeedScale
          window={best.window}
          hot_from={best.hot_from_m_min}
          words={shop.reference?.limit_marks ?? {}}
          soft={best.spread}
          {feed}
          onfeed={(f) => void plan.moveFeed(f).catch((p: unknown) => notice.fail(p))}
        />
        {#if plan.feed !== null}
          <button
            type="button"
            class="back"
            onclick={() => {
              plan.feed = null;
              plan.atFeed = null;
            }}
          >
            Back to the recommended {shop.say(best.figures.feed_m_min, "feed")}
          </button>
        {/if}
      </section>
    {/if}
    {#if plan.answer}
      {@const answer = plan.answer}
      <div class="folds">
        {#if figures}
          <Fold name="Cost" gist={dearest}>
            <Costs {figures} steels={answer.steels} guesses={answer.sure?.guesses ?? ""} />
          </Fold>
        {/if}
        <Fold
          name="Why, how sure"
          gist={answer.sure?.too_close ? "too close to call" : `${answer.rules.length} house rules`}
          ><Why {plan} {answer} /></Fold
        >
        <Fold name="Other saws" gist={otherSaw}><OtherSaws saws={answer.saws} /></Fold>
        {#if draft.min_radius_mm !== null && best?.in_curve}
          <Fold name="In the curve" gist="tightest {shop.say(best.tight_radius_mm, 'length')}">
            <BandInCurve
              band={best.band}
              radius_mm={draft.min_radius_mm}
              tight_mm={best.tight_radius_mm}
              comfortable_mm={best.comfortable_radius_mm}
              place={best.in_curve}
            />
          </Fold>
        {/if}
        {#if draft.operation === "wedge" && draft.angle_deg !== 0}
          <Fold name="Tilt" gist="{draft.angle_deg}°"><Tilt angle_deg={draft.angle_deg} /></Fold>
        {/if}
        <Fold name="What if" gist={tried ? "something is tried out" : "motor, tension, guard …"}
          ><WhatIfPanel {plan} /></Fold
        >
        {#if answer.excluded.length > 0}
          <Fold name="Left out" gist="{answer.excluded.length} bands, and why">
            {#each answer.excluded as band (band.label)}
              <p class="out">
                <strong>{band.label}</strong>
                <span class="soft">{reasonsOf(band)}</span>
              </p>
            {/each}
          </Fold>
        {/if}
        {#if answer.buy}
          <Fold name="Worth buying" gist={shop.typeName(answer.buy.option.band)}>
            <p>
              Welded to {shop.say(answer.buy.length_mm, "length")}, about {shop.money(
                answer.buy.price,
              )}: {shop.moneySpan(answer.buy.option.spread.cost)} a piece.
            </p>
            <p class="soft">{shop.words(answer.buy.words)}</p>
          </Fold>
        {/if}
        <Fold name="Before you cut" gist="{answer.cautions.length} cautions">
          <Cautions cautions={answer.cautions} disclaimer={answer.disclaimer} folded={false} />
        </Fold>
      </div>
      <p class="soft">{answer.disclaimer}</p>
    {/if}
  </div>
{/if}

<style>
  /* Held back: it is not of what stands in the sentence now. */
  [data-held="true"] {
    opacity: 0.45;
  }
  .answer {
    display: grid;
    grid-template-columns: minmax(min(20rem, 46%), 0.8fr) minmax(min(20rem, 46%), 1fr);
    gap: var(--s6);
    padding-top: var(--s2);
    align-items: start;
  }
  .actions {
    padding-top: var(--s2);
  }
  .feed {
    padding-top: var(--s3);
  }
  .holds {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 var(--s5);
  }
  .holds strong,
  .holds [data-alert="true"] {
    color: var(--brass-text);
  }
  .folds {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(12.5rem, 46%), 1fr));
    gap: 0 var(--s4);
    padding-top: var(--s3);
  }
  .out {
    display: grid;
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .back {
    min-height: var(--touch);
    background: none;
    border: 0;
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  .stop {
    margin-top: var(--s4);
    padding: var(--s4);
    border-left: var(--s2) solid var(--vermilion);
    background: var(--vermilion-pale);
    font-size: var(--text-large);
    max-width: 60rem;
  }
  .stop strong {
    color: var(--vermilion);
  }
  .openers li {
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
    max-width: 60rem;
  }
  .openers button {
    min-height: var(--touch);
    margin-left: var(--s2);
    background: var(--jade-pale);
    border-bottom: var(--rule) solid var(--jade);
    font-weight: 600;
  }
  .quiet {
    border-left-color: var(--brass);
    background: none;
  }
  .quiet strong {
    color: inherit;
  }
  .fault {
    padding-top: var(--s3);
  }
  @media (max-width: 56.25em) {
    .answer {
      grid-template-columns: minmax(0, 1fr);
      gap: var(--s4);
    }
    /* What to take and set comes first where one thing fits the screen. */
    .picture {
      order: 1;
    }
  }
</style>
