<script lang="ts">
  import { push } from "svelte-spa-router";

  import { outbox } from "../../lib/sending/outbox.svelte";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { day } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Beforehand from "../../parts/Beforehand.svelte";
  import JobsToTake from "../../parts/JobsToTake.svelte";
  import Cautions from "../../parts/Cautions.svelte";
  import StepCard from "./StepCard.svelte";
  import StepRail from "./StepRail.svelte";
  import Stops from "./Stops.svelte";
  import { SetupState } from "./setup.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const card = new SetupState();
  const id = $derived(Number(params?.id) || currentJob.job?.setup_id || null);
  const setup = $derived(card.answer);

  // The address or the job in hand names the card; reading it asks the server.
  $effect(() => {
    // Also whenever something that waited was taken: it may be a step of this card.
    void outbox.taken;
    if (id !== null) void card.load(id);
    else if (currentJob.id !== null && !currentJob.job)
      void currentJob.reload().catch(() => undefined);
  });

  const onAlready = $derived(
    setup?.tension_state === "on" && card.holding.some((step) => step.key === "tension"),
  );

  async function carry(): Promise<void> {
    try {
      await card.carry();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function finish(): Promise<void> {
    try {
      await card.finish();
      await push("/run");
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

{#if id === null}
  <JobsToTake
    title={currentJob.id === null
      ? "No job in hand."
      : `${currentJob.name} has no set-up card yet.`}
    why={currentJob.id === null ? "" : "Choose its band in Plan, or take up another job."}
    stage="setup"
  />
{:else if card.missing}
  <JobsToTake title={shop.words(card.missing)} stage="setup" />
{:else if setup}
  <header>
    <h1>
      Set up <a href="#/shop/saws/{setup.saw_id}/stand">{setup.saw_name}</a> with
      <a class="mono" href="#/rack/{setup.band_id}">{setup.band_label}</a> for
      <strong>{setup.job_name}</strong>
    </h1>
    <!-- Said politely as it changes: a step was taken, and what the saw is now. -->
    <p class="soft" role="status">
      {card.done} of {card.steps.length} steps · the saw is
      <strong>{setup.tension_state === "on" ? "under tension" : "slack"}</strong>
      {#if setup.last}· {setup.band_label} last set up on it {day(setup.last.at)}{/if}
    </p>
  </header>
  <Beforehand job_id={setup.job_id} since={setup.id} />
  <Stops
    cautions={setup.cautions}
    open={setup.open_stops}
    acknowledged={setup.acknowledged}
    means={setup.means}
    onacknowledge={(key, name, means) => card.acknowledge(key, name, means)}
  />
  {#each setup.defects as defect (defect.text)}
    <p class="defect" role="status">
      <strong>{defect.stops ? "A defect stops this saw:" : "Known of this saw:"}</strong>
      {defect.text}
      <a href="#/shop/saws/{setup.saw_id}/stand">The saw as it stands</a>
    </p>
  {/each}
  {#if card.holding.length > 0}
    <section class="holds no-print" aria-label="What still holds">
      <p>
        <strong
          >{onAlready
            ? `${setup.band_label} is on and tensioned.`
            : "Some of it still holds."}</strong
        >
        From last time: {card.holding.map((s) => s.title.toLowerCase()).join(", ")}.
      </p>
      <Action main disabled={card.sending} onclick={() => void carry()}
        >Keep these {card.holding.length} steps</Action
      >
      <span class="soft">or take the steps one by one</span>
    </section>
  {/if}
  <div class="card">
    <StepRail {card} />
    <div>
      {#if card.current}
        {#key card.current.key}
          <StepCard {card} {setup} step={card.current} />
        {/key}
      {/if}
      <p class="ready" data-ready={setup.ready}>{shop.words(setup.ready_words)}</p>
      <div class="actions no-print">
        {#if setup.ready}
          <Action main onclick={() => void finish()}
            >{setup.finished_at ? "To the run" : "Ready: go to Run"}</Action
          >
        {/if}
        <Action href="/setups/{setup.id}.pdf">Sheet (PDF)</Action>
        <Action href="#/shop/saws/{setup.saw_id}/stand">The saw as it stands</Action>
      </div>
    </div>
  </div>
  <section class="cautions">
    <h2>Cautions</h2>
    <Cautions
      cautions={setup.cautions.filter((c) => c.level !== "stop")}
      disclaimer={setup.disclaimer}
    />
  </section>
  <p class="print-only">
    {day(setup.started_at)} · {setup.band_label}: {shop.number(
      setup.option.band.width_mm,
      "length",
    )} × {shop.say(setup.option.band.thickness_mm, "thin")}
  </p>
{:else}
  <p class="soft">Reading the card …</p>
{/if}

<style>
  .defect {
    padding-bottom: var(--s2);
    color: var(--vermilion);
  }
  header {
    padding-bottom: var(--s3);
  }
  .holds {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: center;
    padding: var(--s3);
    margin-bottom: var(--s4);
    background: var(--jade-pale);
  }
  .holds p {
    flex: 1 1 24rem;
  }
  h1 a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
  h1 strong,
  h1 a {
    font-weight: 650;
    color: var(--jade);
  }
  .card {
    display: grid;
    grid-template-columns: 13.5rem minmax(0, 1fr);
    gap: var(--s6);
    align-items: start;
  }
  .ready {
    padding: var(--s3) 0;
    color: var(--ink-soft);
  }
  .ready[data-ready="true"] {
    color: var(--jade);
    font-weight: 650;
    font-size: var(--text-large);
  }
  .cautions {
    padding-top: var(--s6);
    max-width: 52rem;
  }
  .print-only {
    display: none;
  }
  @media (max-width: 62.5em) {
    .card {
      grid-template-columns: minmax(0, 1fr);
      gap: var(--s3);
    }
  }
  @media print {
    .print-only {
      display: block;
    }
  }
</style>
