<script lang="ts">
  import { ask, askPatiently, client } from "../../api/client";
  import { freshKey } from "../../api/writes";
  import type { RunCard, RunInput, SetupAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { outbox } from "../../lib/outbox.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { forget, recall, remember } from "../../lib/storage";
  import { ticket } from "../../lib/ticket.svelte";
  import { day, duration, percent } from "../../lib/units";
  import Action from "../../parts/Action.svelte";
  import Cautions from "../../parts/Cautions.svelte";
  import EdgeTip from "../../parts/EdgeTip.svelte";
  import QuantityField from "../../parts/QuantityField.svelte";
  import Pace from "./Pace.svelte";
  import Symptoms from "./Symptoms.svelte";
  import Wear from "./Wear.svelte";

  const { params }: { params?: { id?: string } } = $props();
  let card = $state<RunCard | null>(recall<RunCard | null>("run.card", null));
  let setup = $state<SetupAnswer | null>(recall<SetupAnswer | null>("run.setup", null));
  interface Form {
    /** The key of the one run that this form will write. */
    readonly client_key: string;
    readonly symptoms: NonNullable<RunInput["symptoms"]>;
    readonly pieces: number;
    readonly length: number | null;
    readonly minutes: number | null;
    readonly note: string;
    readonly watts: number | null;
  }
  const blank = (): Form => ({
    client_key: freshKey(),
    symptoms: [],
    pieces: 1,
    length: null,
    minutes: null,
    note: "",
    watts: null,
  });
  let form = $state.raw<Form>(blank());
  let busy = $state(false);
  let who = $state(recall("who", ""));
  let clock = $state<number | null>(recall<number | null>("run.clock", null));
  let now = $state(Date.now());

  const jobId = $derived(Number(params?.id) || ticket.id);
  const { symptoms, pieces, length, minutes, note, watts } = $derived(form);
  /** What the motor of this saw takes idling is the same from run to run. */
  let idle = $state<number | null>(null);

  /** What is filled in stays with its job, whatever page is opened meanwhile. */
  function fill(change: Partial<Form>): void {
    form = { ...form, ...change };
    if (jobId) remember(`run.form.${jobId}`, form);
  }
  // The job in hand names the form that was filled in for it.
  $effect(() => {
    if (jobId) form = { ...blank(), ...recall<Partial<Form>>(`run.form.${jobId}`, {}) };
  });
  const reach = $derived(length ?? ticket.draft.length_mm);
  const feedGuess = $derived(setup?.job_id === jobId ? setup.card.feed_m_min : null);
  const expected = $derived(feedGuess ? (pieces * reach) / 1000 / feedGuess : null);
  const taken = $derived(clock === null ? minutes : (now - clock) / 60_000);
  const feed = $derived(taken ? (pieces * reach) / 1000 / taken : null);
  /** What the core calls a feed at this share of the planned one. */
  const pace = $derived(
    feed && feedGuess
      ? shop.reference?.paces.find((p) => p.upto_share === null || feed <= p.upto_share * feedGuess)
          ?.words
      : undefined,
  );
  const last = $derived(outbox.last);
  const own = $derived(shop.settings?.pressures[ticket.draft.material]);
  /** Steps left out of their limits by somebody's reason. */
  const leftSo = $derived(
    (setup?.card.steps ?? []).flatMap((s) => {
      const state = setup?.steps[s.key];
      if (!state?.allowed_by) return [];
      return state.out.map((words) => ({
        title: s.title,
        words,
        by: state.allowed_by,
        why: state.allowed_why,
      }));
    }),
  );
  const guard = $derived(setup?.card.steps.find((s) => s.key === "guard"));

  async function load(id: number): Promise<void> {
    const path = { job_id: id };
    if (ticket.id !== id) await ticket.open(id);
    card = await askPatiently(() => client.GET("/api/jobs/{job_id}/run", { params: { path } }));
    remember("run.card", card);
    idle = recall<number | null>(`idle.${card.saw_id ?? 0}`, null);
    const setupId = ticket.job?.setup_id;
    if (!setupId) return;
    setup = await ask(
      client.GET("/api/setups/{setup_id}", { params: { path: { setup_id: setupId } } }),
    );
    remember("run.setup", setup);
    ticket.band = setup.option.band;
  }
  // The job in hand names the run; reading its card asks the server. What is kept serves meanwhile.
  $effect(() => {
    if (jobId) load(jobId).catch(() => undefined);
  });
  // The stopwatch reads the clock outside.
  $effect(() => {
    if (clock === null) return;
    const timer = setInterval(() => (now = Date.now()), 500);
    return () => clearInterval(timer);
  });

  function startClock(): void {
    clock = Date.now();
    now = clock;
    remember("run.clock", clock);
  }

  function stopClock(): void {
    if (clock !== null) fill({ minutes: (Date.now() - clock) / 60_000 });
    clock = null;
    remember("run.clock", null);
  }

  const CAME = {
    sent: "Logged.",
    kept: "Kept here; it is sent when the server answers.",
    refused: "Not taken: see Waiting, where it can be put right.",
  } as const;

  async function log(): Promise<void> {
    if (busy || !card?.saw_id || !card.band_id || !jobId) return;
    busy = true;
    if (clock !== null) stopClock();
    const run: RunInput = {
      client_key: form.client_key,
      job_id: jobId,
      saw_id: card.saw_id,
      band_id: card.band_id,
      at: new Date().toISOString(),
      pieces,
      length_mm: reach,
      ...(minutes ? { time_s: minutes * 60 } : { feed_m_min: feedGuess ?? 1 }),
      symptoms,
      note,
      who,
      ...(watts !== null && idle !== null ? { power_W: watts, idle_W: idle } : {}),
    };
    remember(`idle.${card.saw_id}`, idle);
    remember("who", who);
    try {
      const came = await outbox.log(run);
      forget(`run.form.${jobId}`);
      form = blank();
      notice.say(CAME[came]);
      if (came === "sent") await load(jobId).catch(() => undefined);
      if (came === "sent") await ticket.reload().catch(() => undefined);
      if (came === "sent" && run.power_W) await shop.load();
    } catch {
      notice.fail(
        new Error("This browser's store is full and the server away: stay on this page."),
      );
    } finally {
      busy = false;
    }
  }

  async function believe(run_id: number): Promise<void> {
    const params = { path: { run_id } };
    outbox.last = await ask(client.POST("/api/runs/{run_id}/confirm", { params }));
    if (jobId) await load(jobId);
  }

  async function takeBack(): Promise<void> {
    if (!last) return;
    const params = { path: { run_id: last.id } };
    const { change_id } = await ask(client.DELETE("/api/runs/{run_id}", { params }));
    outbox.last = null;
    await ticket.reload();
    notice.canUndo("The run is taken back and the wear with it.", change_id, () => ticket.reload());
  }
</script>

{#if !jobId}
  <section class="empty">
    <h1>No job is in hand.</h1>
    <Action main href="#/jobs">Choose a job</Action>
  </section>
{:else if card && (!card.saw_id || !card.band_id)}
  <section class="empty">
    <h1>Not ready to run.</h1>
    <p class="why">{shop.words(card.words)}</p>
    <Action main href={ticket.job?.setup_id ? "#/setup" : "#/plan"}
      >{ticket.job?.setup_id ? "To the set-up card" : "To Plan"}</Action
    >
  </section>
{:else if card}
  <header>
    <h1>Run <strong>{ticket.name}</strong></h1>
    <p class="soft">
      {ticket.job?.done_pieces ?? 0} of {ticket.draft.count} pieces logged
      {#if setup?.job_id === jobId}
        · feed <strong class="mono">{shop.say(setup.card.feed_m_min, "feed")}</strong>, speed
        <strong class="mono">{shop.say(setup.card.speed_m_s, "speed")}</strong>, guard
        <strong class="mono">{shop.words(guard?.figure ?? "")}</strong>
        {guard?.readings[0]?.label}
      {/if}
    </p>
  </header>
  {#if !card.open}
    <p class="unready" role="status">
      <strong>Not ready to run.</strong>
      {shop.words(card.words)} A run logged now is kept, and marked so.
      <a href={ticket.job?.setup_id ? "#/setup" : "#/plan"}
        >{ticket.job?.setup_id ? "To the set-up card" : "To Plan"}</a
      >
    </p>
  {/if}
  {#if (ticket.job?.done_pieces ?? 0) >= ticket.draft.count}
    <p class="done" role="status">
      All pieces are logged. {card.when_done}
      <a href="#/shop/saws/{card.saw_id}">Record the tension</a>
    </p>
  {/if}
  {#each card.waiting.filter((w) => w.id !== last?.id) as run (run.id)}
    <p class="unready" role="status">
      Logged {day(run.at)}: <strong>{shop.words(run.words)}</strong> It moves no wear yet.
      <Action onclick={() => void believe(run.id)}>Yes, it was so</Action>
    </p>
  {/each}
  {#if setup?.job_id === jobId}
    {#each leftSo as step (step.title)}
      <p class="soft left">
        {step.title}: {shop.words(step.words)}; left so by {step.by}: {step.why}.
      </p>
    {/each}
  {/if}
  <div class="run">
    <section class="log" aria-label="Log a run">
      <div class="count">
        <button
          type="button"
          aria-label="One piece less"
          onclick={() => fill({ pieces: Math.max(1, pieces - 1) })}>−</button
        >
        <p><span class="mono">{pieces}</span> {pieces === 1 ? "piece" : "pieces"}</p>
        <button
          type="button"
          aria-label="One piece more"
          onclick={() => fill({ pieces: pieces + 1 })}>+</button
        >
      </div>
      <div class="time">
        {#if clock === null}
          <Action onclick={startClock}>Start the clock</Action>
        {:else}
          <Action onclick={stopClock}>Stop the clock</Action>
        {/if}
        {#if clock === null}
          <QuantityField
            label="Minutes taken"
            kind="plain"
            value={minutes === null ? null : Number(minutes.toFixed(2))}
            onvalue={(v) => fill({ minutes: v })}
          />
        {:else}
          <p class="ticking mono" role="timer">{duration((now - clock) / 1000)}</p>
        {/if}
        <QuantityField
          label="Length of each"
          kind="length"
          usual="length_mm"
          value={reach}
          onvalue={(v) => fill({ length: v })}
        />
      </div>
      <p class="pace">
        {#if feed}
          That is a feed of <strong class="mono">{shop.say(feed, "feed")}</strong>{#if pace}, {pace}{/if}.
        {:else if expected}
          At the planned feed it takes {duration(expected * 60)}; leave the minutes empty to log it
          so.
        {/if}
      </p>
      {#if feedGuess}
        <Pace
          feed={feedGuess}
          onfeed={(true_) => fill({ minutes: (pieces * reach) / 1000 / true_ })}
        />
      {/if}
      <details class="watts">
        <summary>The motor’s watts{watts === null ? "" : `: ${watts}`}</summary>
        <div class="time">
          <QuantityField
            label="Watts while cutting"
            kind="plain"
            value={watts}
            onvalue={(v) => fill({ watts: v })}
          />
          <QuantityField
            label="Watts idling"
            kind="plain"
            value={idle}
            onvalue={(v) => (idle = v)}
          />
        </div>
        <p class="soft">
          Read on a plug meter or clamp: with both, this run tells the wood’s own cutting pressure,
          and Plan reckons with it.{#if own}
            So far {Math.round(own.K_ref_MPa)} MPa at a bite of 0.1 mm from {own.runs}
            {own.runs === 1 ? "run" : "runs"}.{/if}
        </p>
      </details>
      <Symptoms {symptoms} onsymptoms={(s) => fill({ symptoms: s })} />
      <div class="words">
        <label>Who<input bind:value={who} list="run-people" autocomplete="off" /></label>
        <datalist id="run-people"
          >{#each shop.settings?.people ?? [] as person (person)}<option value={person}
            ></option>{/each}</datalist
        >
        <label class="grow"
          >Note<input
            value={note}
            oninput={(e) => fill({ note: e.currentTarget.value })}
            autocomplete="off"
          /></label
        >
      </div>
      <Action main disabled={busy} onclick={() => void log()}
        >Log {pieces} {pieces === 1 ? "piece" : "pieces"}</Action
      >
      {#if outbox.waiting.length > 0}
        <p class="waiting" role="status">
          {outbox.waiting.length}
          {outbox.waiting.length === 1 ? "run is" : "runs are"} kept here until the server answers.
          <a href="#/waiting">See</a>
        </p>
      {/if}
      {#each outbox.refused as { run, refused } (run.client_key)}
        <p class="refused" role="alert">
          A run of {run.pieces} was not taken: {shop.words(refused)}
          <a href="#/waiting">Put it right</a>
        </p>
      {/each}
    </section>
    <section class="band" aria-live="polite" aria-label="The band">
      {#if card.lot}
        <div class="lot" data-better={card.lot.go_on.better}>
          <p>
            <strong class="mono">{card.lot.done}</strong> done,
            <strong class="mono">{card.lot.left}</strong> left.
            {#if !card.lot.blocked}
              This edge has
              <strong class="mono"
                >{card.lot.pieces_low === card.lot.pieces_high
                  ? card.lot.pieces_low
                  : `${card.lot.pieces_low}–${card.lot.pieces_high}`}</strong
              >
              of them in it (eight chances in ten).
            {/if}
          </p>
          <p><strong>{shop.words(card.lot.words)}</strong></p>
          {#if !card.lot.blocked}
            <p class="soft">
              The next piece: going on costs {shop.money(card.lot.go_on.go_on_cost)}, changing first
              {shop.money(card.lot.go_on.change_cost)}.
            </p>
          {/if}
        </div>
      {/if}
      {#if last && last.band.id === card.band_id}
        {#if last.to_confirm}
          <p class="unready" role="alert">
            <strong>{shop.words(last.to_confirm)}</strong> Kept; it moves no wear until confirmed.
          </p>
          <Action main onclick={() => void believe(last.id)}>Yes, it was so</Action>
        {:else}
          <Wear run={last} />
        {/if}
        {#if last.without_card}<p class="soft">Marked: {last.without_card}</p>{/if}
        <Action href="#/rack/{last.band.id}">Its whole life</Action>
        <Action onclick={() => void takeBack()}>Take the run back</Action>
      {:else if setup?.job_id === jobId && setup}
        {@const band = setup.option.band}
        <p class="edge">
          <EdgeTip edge={band.edge} radius_um={band.tip_radius_um} />
          <span class="mono">{band.label}</span>
        </p>
        <p>Edge used: {percent(band.dullness)}.</p>
        {#if setup.option.figures.lasts !== null}
          <p>
            {setup.option.figures.lasts > 0.99
              ? "Better than 99 %"
              : percent(setup.option.figures.lasts)} chance that it lasts all {ticket.draft.count};
            then {percent(setup.option.figures.dullness_after)} of the edge is used.
          </p>
        {/if}
      {/if}
      {#if setup?.job_id === jobId && setup}
        <Cautions
          cautions={setup.cautions.filter((c) => c.level !== "note")}
          disclaimer={setup.disclaimer}
        />
      {/if}
    </section>
  </div>
{:else}
  <p class="soft">Reading the run card …</p>
{/if}

<style>
  .lot {
    padding-bottom: var(--s3);
    border-bottom: var(--rule) solid var(--hairline);
  }
  .lot p {
    margin: 0 0 var(--s1);
  }
  .lot[data-better="change"] {
    border-left: var(--s2) solid var(--vermilion);
    padding-left: var(--s3);
  }
  .empty {
    display: grid;
    gap: var(--s4);
    justify-items: start;
  }
  .why {
    font-size: var(--text-large);
  }
  header {
    padding-bottom: var(--s3);
  }
  h1 strong {
    font-weight: 650;
    color: var(--jade);
  }
  .left {
    padding-bottom: var(--s2);
  }
  .unready {
    padding-bottom: var(--s3);
    color: var(--vermilion);
  }
  .done {
    padding-bottom: var(--s3);
    font-weight: 600;
  }
  .run {
    display: grid;
    grid-template-columns: minmax(0, 1.4fr) minmax(18rem, 1fr);
    gap: var(--s6);
    align-items: start;
  }
  .log {
    display: grid;
    gap: var(--s4);
    justify-items: start;
    border-top: var(--rule) solid var(--ink);
    padding-top: var(--s3);
  }
  .count {
    display: flex;
    align-items: center;
    gap: var(--s5);
  }
  .count button {
    width: 4.5rem;
    height: 4.5rem;
    font-size: var(--figure-large);
    line-height: 1;
    background: var(--jade-pale);
    border: 0;
    border-bottom: var(--rule) solid var(--jade);
  }
  .count p {
    min-width: 9rem;
    text-align: center;
    font-size: var(--text-large);
  }
  .count .mono,
  .ticking {
    font-size: var(--figure-large);
    font-weight: 700;
  }
  .time,
  .words {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    width: 100%;
  }
  .pace {
    min-height: 1.5rem;
  }
  label {
    display: grid;
    font-weight: 600;
  }
  .grow {
    flex: 1;
  }
  .words input {
    min-height: var(--touch);
    font-weight: 400;
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
    width: 100%;
  }
  .refused {
    border-left: var(--s2) solid var(--vermilion);
    background: var(--vermilion-pale);
    padding: var(--s3);
  }
  .waiting {
    color: var(--brass-text);
    font-weight: 650;
  }
  .band {
    border-top: var(--rule) solid var(--ink);
    padding-top: var(--s3);
    display: grid;
    gap: var(--s3);
    justify-items: start;
  }
  .edge {
    font-size: var(--figure);
    font-weight: 650;
    display: flex;
    gap: var(--s4);
  }
  @media (max-width: 900px) {
    .run {
      grid-template-columns: 1fr;
    }
  }
</style>
