<script lang="ts">
  import { push } from "svelte-spa-router";

  import { ask, client } from "../../api/client";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { invalidFields } from "../../lib/invalidFields.svelte";
  import { duration, span } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import BandInCurve from "../../parts/pictures/BandInCurve.svelte";
  import BandInWork from "../../parts/pictures/BandInWork.svelte";
  import Cautions from "../../parts/Cautions.svelte";
  import Tilt from "../../parts/pictures/Tilt.svelte";
  import FeedScale from "../../parts/pictures/FeedScale.svelte";
  import Figure from "../../parts/Figure.svelte";
  import HeldBack from "../../parts/HeldBack.svelte";
  import Answer from "./Answer.svelte";
  import Beside from "./Beside.svelte";
  import OutlineDrop from "./OutlineDrop.svelte";
  import { PlanState } from "./plan.svelte";
  import EditState from "../../parts/EditState.svelte";
  import { sentenceOf } from "./sentences";
  import Compare from "./Compare.svelte";
  import Sentence from "./Sentence.svelte";
  import WhatIfPanel from "./WhatIfPanel.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const plan = new PlanState();

  // The address may name a job: opening it asks the server.
  $effect(() => {
    if (params?.id?.startsWith("new.")) currentJob.resume(params.id);
    const id = Number(params?.id);
    if (id > 0 && currentJob.job?.id !== id)
      currentJob.open(id).catch((p: unknown) => notice.fail(p));
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

  const best = $derived(plan.answer?.best ?? null);
  const figures = $derived(plan.figures);
  const material = $derived(shop.material(currentJob.draft.material));
  const metal = $derived(material?.is_metal ?? false);
  const grained = $derived(material?.is_grained ?? false);
  const explained = $derived(plan.answer?.explained ?? {});
  const feed = $derived(plan.feed ?? best?.figures.feed_m_min ?? 0);

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

  async function setUp(): Promise<void> {
    if (!best?.band.band_id || !(await save()) || currentJob.id === null) return;
    try {
      const body = { job_id: currentJob.id, band_id: best.band.band_id };
      const { id } = await ask(client.POST("/api/setups", { body }));
      await currentJob.reload();
      await push(`/setup/${id}`);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<EditState edit={currentJob.edit} />
{#if shop.saws.length === 0}
  {#await import("../start/Start.svelte") then { default: Start }}<Start />{/await}
{:else}
  <div class="plan" data-stale={plan.stale}>
    <Sentence faults={plan.faults} rules={plan.answer?.rules_offered ?? null} />
    {#if sentenceOf(currentJob.draft.operation)?.takes_outline}<OutlineDrop />{/if}
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
    {#if best && figures && plan.answer}
      <div class="answer" data-held={invalidFields.any}>
        <div>
          <BandInWork
            band={best.band}
            height_mm={currentJob.draft.height_mm}
            guard_mm={shop.settings?.guard_gap_mm ?? 10}
            gullet_fill={figures.gullet_fill}
            fill_limit_reached={feed >= (best.window.limits_m_min.gullet ?? Infinity)}
            teeth_in_cut={best.teeth_in_cut}
            material={shop.material(currentJob.draft.material)?.name ?? ""}
            {metal}
            {grained}
            shape={currentJob.draft.operation === "tube"
              ? "tube"
              : currentJob.draft.operation === "mill" || currentJob.draft.round_stock
                ? "round"
                : "flat"}
            wall_mm={currentJob.draft.wall_mm}
            log_mm={currentJob.draft.log_diameter_mm}
          />
          {#if currentJob.draft.operation === "wedge" && currentJob.draft.angle_deg !== 0}
            <Tilt angle_deg={currentJob.draft.angle_deg} />
          {/if}
          {#if currentJob.draft.min_radius_mm !== null && best.in_curve}
            <BandInCurve
              band={best.band}
              radius_mm={currentJob.draft.min_radius_mm}
              tight_mm={best.tight_radius_mm}
              comfortable_mm={best.comfortable_radius_mm}
              place={best.in_curve}
            />
          {/if}
          <div class="actions no-print">
            <Action
              main
              disabled={currentJob.draft.what_if !== null || invalidFields.any}
              onclick={() => void setUp()}
              >{currentJob.draft.what_if === null
                ? `Set up ${best.band.label}`
                : "Reset what-if to set up"}</Action
            >
            <Action onclick={() => void save()} disabled={!currentJob.changed}
              >{currentJob.id === null
                ? "Save job"
                : currentJob.changed
                  ? "Save changes"
                  : "Saved"}</Action
            >
            <Action href="#/jobs">All jobs</Action>
            <Action
              href={currentJob.job?.stock_id ? `#/stock/${currentJob.job.stock_id}` : "#/stock"}
              >Stock</Action
            >
          </div>
        </div>
        <Answer answer={plan.answer} {best} {explained} {feed} {figures} />
      </div>
      <section class="feed" data-held={invalidFields.any} aria-label="Feed">
        <div class="follow" aria-live="polite">
          <Figure
            label="feed"
            value={shop.number(feed, "feed")}
            unit={shop.unit("feed")}
            explained={explained.feed}
          />
          <Figure
            label="bite"
            value={shop.number(figures.bite_mm, "thin")}
            unit={shop.unit("thin")}
            alert={figures.hot}
          />
          <Figure
            label="power"
            value={span(
              100 * figures.spread.power_share.low,
              100 * figures.spread.power_share.high,
              "plain",
              "metric",
            )}
            unit="%"
            explained={explained.power}
            alert={figures.power_share > 1}
          />
          <Figure
            label="push"
            value={shop.span(figures.spread.push_N, "force")}
            unit={shop.unit("force")}
            explained={explained.push}
          />
          <Figure label="all {currentJob.draft.count} in" value={duration(figures.total_time_s)} />
          <Figure label="face" value={figures.finish} />
          <p class="holds">
            {figures.held_words} This feed holds {figures.spread.held_words};
            {figures.lot.words}.
          </p>
        </div>
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
      <WhatIfPanel {plan} />
      <Beside
        {plan}
        answer={plan.answer}
        {figures}
        chosen={plan.chosen}
        oncompare={(id) => plan.choose(id)}
      />
      {#if plan.chosen.length > 0 && plan.compared.length > 0}
        <Compare compared={plan.compared} onclose={() => (plan.chosen = [])} />
      {/if}
      <section class="cautions">
        <h2>Before you cut</h2>
        <Cautions cautions={plan.answer.cautions} disclaimer={plan.answer.disclaimer} />
      </section>
      {#if figures?.lasts !== null && figures?.lasts !== undefined && best}
        <p class="soft">
          Chance that {best.band.label} lasts this job: {shop.chance(figures.lasts)}.
        </p>
      {/if}
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
    grid-template-columns: minmax(min(20rem, 46%), 0.92fr) minmax(min(20rem, 46%), 1fr);
    gap: var(--s6);
    padding-top: var(--s3);
    align-items: start;
  }
  .actions {
    padding-top: var(--s3);
  }
  .feed {
    padding-top: var(--s2);
  }
  .follow {
    display: flex;
    flex-wrap: wrap;
    column-gap: var(--s6);
    align-items: flex-end;
  }
  .holds {
    color: var(--brass-text);
    font-weight: 650;
    padding-bottom: var(--s2);
    margin-left: auto;
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
  .cautions {
    padding-top: var(--s6);
    max-width: 52rem;
  }
  .cautions h2 {
    padding-bottom: var(--s2);
  }
  @media (max-width: 56.25em) {
    .answer {
      grid-template-columns: 1fr;
      gap: var(--s4);
    }
    /* What to take and set comes first where one thing fits the screen. */
    .answer > :first-child {
      order: 1;
    }
    .follow {
      column-gap: var(--s5);
    }
  }
</style>
