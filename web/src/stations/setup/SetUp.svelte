<script lang="ts">
  import { push } from "svelte-spa-router";

  import { ask, askPatiently, client } from "../../api/client";
  import type { SetupAnswer, StepBody } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall, remember } from "../../lib/storage";
  import { ticket } from "../../lib/ticket.svelte";
  import { day } from "../../lib/units";
  import Action from "../../parts/Action.svelte";
  import Cautions from "../../parts/Cautions.svelte";
  import Step from "./Step.svelte";
  import Stops from "./Stops.svelte";
  import TensionForms from "./TensionForms.svelte";

  const { params }: { params?: { id?: string } } = $props();
  let setup = $state<SetupAnswer | null>(null);
  let missing = $state("");
  let who = $state(recall("who", ""));
  let chosen = $state<string | null>(null);

  const id = $derived(Number(params?.id) || ticket.job?.setup_id || null);
  const steps = $derived(setup?.card.steps ?? []);
  const settled = (key: string) => {
    const state = setup?.steps[key];
    return Boolean(state?.done || state?.skipped);
  };
  const next = $derived(steps.find((s) => !settled(s.key))?.key ?? null);
  const current = $derived(chosen ?? next);
  const done = $derived(steps.filter((s) => settled(s.key)).length);

  async function load(setup_id: number): Promise<void> {
    try {
      setup = await askPatiently(() =>
        client.GET("/api/setups/{setup_id}", { params: { path: { setup_id } } }),
      );
      missing = "";
      if (ticket.id !== setup.job_id) await ticket.open(setup.job_id);
      ticket.band = setup.option.band;
    } catch (problem) {
      setup = null;
      missing = problem instanceof Error ? problem.message : String(problem);
    }
  }
  // The address or the job in hand names the card; reading it asks the server.
  $effect(() => {
    if (id !== null) void load(id);
    else if (ticket.id !== null && !ticket.job) void ticket.reload().catch(() => undefined);
  });

  async function record(body: StepBody): Promise<void> {
    if (!setup) return;
    const path = { setup_id: setup.id };
    try {
      setup = await ask(client.POST("/api/setups/{setup_id}/steps", { params: { path }, body }));
      chosen = null;
      remember("who", body.who ?? "");
      if (body.key === "mount" || body.key === "tension") await shop.loadSaws();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function acknowledge(key: string, name: string): Promise<void> {
    if (!setup) return;
    const path = { setup_id: setup.id };
    const body = { key, name };
    setup = await ask(
      client.POST("/api/setups/{setup_id}/acknowledge", { params: { path }, body }),
    );
  }

  async function finish(): Promise<void> {
    if (!setup) return;
    try {
      const path = { setup_id: setup.id };
      setup = await ask(client.POST("/api/setups/{setup_id}/finish", { params: { path } }));
      await ticket.reload();
      await push("/run");
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

{#if id === null}
  <section class="empty">
    <h1>No card is open.</h1>
    <p>A card is made from a planned job: choose its band in Plan, then “Set up”.</p>
    <Action main href="#/plan">To Plan</Action>
  </section>
{:else if missing}
  <section class="empty">
    <h1>{missing}</h1>
    <Action main href="#/plan">To Plan</Action>
  </section>
{:else if setup}
  <header>
    <h1>
      Set up <strong>{setup.saw_name}</strong> with <strong class="mono">{setup.band_label}</strong>
      for
      <strong>{setup.job_name}</strong>
    </h1>
    <p class="soft no-print">
      {done} of {steps.length} steps · the saw is
      <strong>{setup.tension_state === "on" ? "under tension" : "slack"}</strong>
    </p>
  </header>
  <Stops
    cautions={setup.cautions}
    open={setup.open_stops}
    acknowledged={setup.acknowledged}
    onacknowledge={acknowledge}
  />
  <div class="card">
    <ol>
      {#each steps as step, i (step.key)}
        <Step
          {step}
          place={i + 1}
          state={setup.steps[step.key]}
          open={current === step.key}
          {who}
          onopen={() => (chosen = current === step.key ? null : step.key)}
          onrecord={(body) => {
            who = body.who ?? "";
            return record(body);
          }}
        />
      {/each}
    </ol>
    <aside>
      <TensionForms card={setup.card.tension} />
      <dl class="settings">
        <div>
          <dt>speed</dt>
          <dd>
            <strong class="mono">{shop.say(setup.card.speed_m_s, "speed")}</strong>
            {setup.card.speed_setting}
          </dd>
        </div>
        <div>
          <dt>guard</dt>
          <dd>
            <strong class="mono">{shop.say(setup.card.guides.guard_height_mm, "length")}</strong>
            above the table, {shop.say(setup.card.guides.guard_gap_mm, "length")} over the work
          </dd>
        </div>
        <div>
          <dt>guides</dt>
          <dd>
            sides <strong class="mono"
              >{setup.card.guides.side_gap_mm === null
                ? "none"
                : setup.card.guides.side_gap_mm === 0
                  ? "touching"
                  : shop.say(setup.card.guides.side_gap_mm, "thin")}</strong
            >, thrust
            <strong class="mono">{shop.say(setup.card.guides.thrust_gap_mm, "thin")}</strong>
          </dd>
        </div>
        <div>
          <dt>feed</dt>
          <dd><strong class="mono">{shop.say(setup.card.feed_m_min, "feed")}</strong></dd>
        </div>
      </dl>
      <p class="ready" data-ready={setup.ready}>{setup.ready_words}</p>
      <div class="actions no-print">
        <Action main disabled={!setup.ready} onclick={() => void finish()}
          >{setup.finished_at ? "To the run" : "Ready: go to Run"}</Action
        >
        <Action onclick={() => window.print()}>Print</Action>
      </div>
    </aside>
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
  .empty {
    display: grid;
    gap: var(--s4);
    justify-items: start;
  }
  header {
    padding-bottom: var(--s3);
  }
  h1 strong {
    font-weight: 650;
    color: var(--jade);
  }
  .card {
    display: grid;
    grid-template-columns: minmax(0, 1.5fr) minmax(19rem, 1fr);
    gap: var(--s6);
    align-items: start;
  }
  ol {
    border-top: var(--rule) solid var(--ink);
  }
  aside {
    position: sticky;
    top: var(--s4);
  }
  .settings div {
    display: grid;
    grid-template-columns: 4.5rem 1fr;
    gap: var(--s3);
    padding: var(--s2) 0;
    border-bottom: var(--hair) solid var(--hairline);
  }
  dt {
    color: var(--ink-soft);
  }
  dd strong {
    font-size: var(--text-large);
  }
  .ready {
    padding: var(--s3) 0;
    color: var(--ink-soft);
  }
  .ready[data-ready="true"] {
    color: var(--jade);
    font-weight: 650;
  }
  .actions {
    display: flex;
    gap: var(--s3);
    align-items: center;
  }
  .cautions {
    padding-top: var(--s6);
    max-width: 52rem;
  }
  .print-only {
    display: none;
  }
  @media (max-width: 900px) {
    .card {
      grid-template-columns: 1fr;
    }
    aside {
      position: static;
    }
  }
  @media print {
    .card {
      grid-template-columns: 1.5fr 1fr;
      font-size: 10pt;
    }
    .print-only {
      display: block;
    }
  }
</style>
