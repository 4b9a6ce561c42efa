<script lang="ts">
  import Who from "../../parts/fields/Who.svelte";
  import { ask, askPatiently, client, notThere } from "../../api/client";
  import type { RunCard, RunInput, SetupAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { type NewRun, outbox } from "../../lib/sending/outbox.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { invalidFields } from "../../lib/invalidFields.svelte";
  import { forget, recall, remember } from "../../lib/storage";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { duration } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import JobsToTake from "../../parts/JobsToTake.svelte";
  import ActionBar from "../../parts/ActionBar.svelte";
  import Fold from "../../parts/Fold.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import FeedScale from "../../parts/pictures/FeedScale.svelte";
  import BandSide from "./BandSide.svelte";
  import ChipTaps from "./ChipTaps.svelte";
  import { blankRun, type Motor, motorOf, NO_MOTOR, type RunForm } from "./form";
  import NailAhead from "./NailAhead.svelte";
  import Pace from "./Pace.svelte";
  import Preflight from "./Preflight.svelte";
  import RunState from "./RunState.svelte";
  import StopMarks from "./StopMarks.svelte";
  import Symptoms from "./Symptoms.svelte";
  import Watts from "./Watts.svelte";

  type Ready = NonNullable<RunInput["preflight"]>;
  const { params }: { params?: { id?: string } } = $props();
  let card = $state<RunCard | null>(recall<RunCard | null>("run.card", null));
  /** Said of a job that is not there. */
  let missing = $state("");
  let setup = $state<SetupAnswer | null>(recall<SetupAnswer | null>("run.setup", null));
  let form = $state.raw<RunForm>(blankRun());
  let busy = $state(false);
  /** A run was to be logged without its minutes. */
  let askMinutes = $state(false);
  let who = $state(recall("who", ""));
  let clock = $state<number | null>(recall<number | null>("run.clock", null));
  let now = $state(Date.now());

  const jobId = $derived(Number(params?.id) || currentJob.id);
  const { symptoms, pieces, length, minutes, note } = $derived(form);
  /** What the motor of this saw takes idling is the same from run to run. */
  let motor = $state.raw<Motor>(NO_MOTOR);
  /** What was tapped before the start, for this lot. */
  let ready = $state.raw<Ready>([]);

  /** What is filled in stays with its job, whatever page is opened meanwhile. */
  function fill(change: Partial<RunForm>): void {
    form = { ...form, ...change };
    if (jobId) remember(`run.form.${jobId}`, form);
  }
  // The job in hand names the form that was filled in for it.
  $effect(() => {
    if (!jobId) return;
    ready = recall<Ready>(`run.preflight.${jobId}`, []);
    form = { ...blankRun(), ...recall<Partial<RunForm>>(`run.form.${jobId}`, {}) };
  });
  const reach = $derived(length ?? currentJob.draft.length_mm);
  const atSaw = $derived(card?.job_id === jobId ? (card?.at_the_saw ?? null) : null);
  const newEdge = $derived(atSaw?.break_in ?? null);
  /** The feed to keep: a new edge's own while the pieces are all within its breaking in. */
  const feedGuess = $derived(
    newEdge && pieces <= newEdge.whole_cuts
      ? newEdge.feed_m_min
      : setup?.job_id === jobId
        ? setup.card.feed_m_min
        : null,
  );
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
  /** Pieces of this job that are written down here only: they are cut all the same. */
  const unsent = $derived(
    outbox.waiting.reduce((sum, { run }) => sum + (run.job_id === jobId ? run.pieces : 0), 0),
  );
  const scale = $derived(atSaw?.scale ?? null);
  /** What is filled in under the fold. */
  const moreGist = $derived(
    [
      form.chips ? `chips ${form.chips.replaceAll("_", " ")}` : "",
      form.stops.length > 0 ? `${form.stops.length} stops` : "",
      form.strikes > 0 ? `${form.strikes} strikes` : "",
    ]
      .filter(Boolean)
      .join(", "),
  );
  /** Where the feed stands in its window; null while neither is known. */
  const place = $derived.by(() => {
    if (!scale || !feed) return null;
    if (feed < scale.window.floor_m_min) return "small";
    return feed > scale.window.ceiling_m_min ? "large" : "right";
  });
  const own = $derived(shop.settings?.pressures[currentJob.draft.material]);
  const guard = $derived(setup?.card.steps.find((s) => s.key === "guard"));

  async function load(id: number): Promise<void> {
    const path = { job_id: id };
    if (currentJob.id !== id) await currentJob.open(id);
    card = await askPatiently(() => client.GET("/api/jobs/{job_id}/run", { params: { path } }));
    remember("run.card", card);
    motor = recall<Motor>(`motor.${card.saw_id ?? 0}`, NO_MOTOR);
    const setupId = currentJob.job?.setup_id;
    if (!setupId) return;
    setup = await ask(
      client.GET("/api/setups/{setup_id}", { params: { path: { setup_id: setupId } } }),
    );
    remember("run.setup", setup);
    currentJob.band = setup.option.band;
  }
  // The job in hand names the run; reading its card asks the server. What is kept serves meanwhile.
  $effect(() => {
    missing = "";
    if (jobId) load(jobId).catch((problem: unknown) => (missing = notThere(problem)));
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

  async function log(asPlanned = false): Promise<void> {
    if (busy || !card?.saw_id || !card.band_id || !jobId) return;
    if (clock !== null) stopClock();
    // Minutes are asked for, never made up.
    askMinutes = !minutes && !asPlanned;
    if (askMinutes) return;
    busy = true;
    const run: NewRun = {
      job_id: jobId,
      saw_id: card.saw_id,
      band_id: card.band_id,
      at: new Date().toISOString(),
      pieces,
      length_mm: reach,
      ...(minutes || !feedGuess ? { time_s: (minutes ?? 0) * 60 } : { feed_m_min: feedGuess }),
      symptoms,
      note,
      who,
      preflight: ready,
      ...(form.chips ? { chips: form.chips } : {}),
      stops: form.stops,
      strikes: form.strikes,
      teeth_lost: form.teeth_lost,
      ...motorOf(form, motor),
    };
    remember(`motor.${card.saw_id}`, motor);
    remember("who", who);
    try {
      const key = await outbox.keep(run);
      forget(`run.form.${jobId}`);
      form = blankRun();
      const came = await outbox.came(key);
      notice.say(CAME[came]);
      if (came === "sent") await load(jobId).catch(() => undefined);
      if (came === "sent") await currentJob.reload().catch(() => undefined);
      if (came === "sent" && (run.power_W || run.amps_A)) await shop.load();
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
    await currentJob.reload();
    notice.canUndo("The run is taken back and the wear with it.", change_id, () =>
      currentJob.reload(),
    );
  }
</script>

{#if !jobId || missing}
  <JobsToTake title={missing || "No job in hand."} stage="run" />
{:else if card && (!card.saw_id || !card.band_id)}
  <JobsToTake title="Not ready to run." why={shop.words(card.words)} stage="run" />
{:else if card}
  <header>
    <h1>Run <strong>{currentJob.name}</strong></h1>
    <p class="soft">
      {(currentJob.job?.done_pieces ?? 0) + unsent} of {currentJob.draft.count} pieces logged{unsent >
      0
        ? `, ${unsent} of them not sent`
        : ""}
      {#if setup?.job_id === jobId}
        · feed <strong class="mono">{shop.say(feedGuess ?? setup.card.feed_m_min, "feed")}</strong>,
        speed
        <strong class="mono">{shop.say(setup.card.speed_m_s, "speed")}</strong>, guard
        <strong class="mono">{shop.words(guard?.figure ?? "")}</strong>
        {guard?.readings[0]?.label}
      {/if}
    </p>
  </header>
  <RunState
    {card}
    setup={setup?.job_id === jobId ? setup : null}
    onbelieve={(id) => void believe(id)}
  />
  <Preflight
    all={card?.job_id === jobId ? card.preflight : []}
    done={ready}
    ondone={(done) => {
      ready = done;
      remember(`run.preflight.${jobId}`, done);
    }}
  />
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
      {#if newEdge}<p class="new-edge">{shop.words(newEdge.words)}</p>{/if}
      <p class="pace">
        {#if feed}
          That is a feed of <strong class="mono">{shop.say(feed, "feed")}</strong>{#if pace}, {pace}{/if}.
        {:else if askMinutes}
          <strong role="alert">How many minutes did it take?</strong>
          {#if expected}
            <Action disabled={busy} onclick={() => void log(true)}
              >As planned, {duration(expected * 60)}</Action
            >
          {/if}
        {:else if expected}
          At the planned feed it takes {duration(expected * 60)}.
        {/if}
      </p>
      <Symptoms {symptoms} effects={atSaw?.signs ?? []} onsymptoms={(s) => fill({ symptoms: s })} />
      {#if atSaw}
        <NailAhead
          saw={atSaw}
          strikes={form.strikes}
          teeth_lost={form.teeth_lost}
          onstrike={(teeth) =>
            fill({ strikes: form.strikes + 1, teeth_lost: form.teeth_lost + teeth })}
        />
      {/if}
      <div class="words">
        <Who value={who} onpick={(name) => (who = name)} />
        <label class="grow"
          >Note<input
            value={note}
            oninput={(e) => fill({ note: e.currentTarget.value })}
            autocomplete="off"
          /></label
        >
      </div>
      <ActionBar>
        <Action main disabled={busy || invalidFields.any} onclick={() => void log()}
          >Log {pieces} {pieces === 1 ? "piece" : "pieces"}</Action
        >
        {#if invalidFields.any}<p role="status">
            A field cannot be read: nothing is logged with it.
          </p>{/if}
      </ActionBar>
      <Fold name="Pace, chips, stops, watts" gist={moreGist}>
        {#if feedGuess}
          <Pace
            feed={feedGuess}
            onfeed={(true_) => fill({ minutes: (pieces * reach) / 1000 / true_ })}
          />
        {/if}
        {#if scale && feed}
          <FeedScale
            window={scale.window}
            hot_from={scale.hot_from_m_min}
            words={shop.reference?.limit_marks ?? {}}
            soft={scale}
            {feed}
          />
        {/if}
        {#if atSaw && atSaw.chips.length > 0}
          <ChipTaps
            chosen={form.chips ?? null}
            table={atSaw.chips}
            {place}
            onchips={(chips) => fill({ chips })}
          />
        {/if}
        <StopMarks stops={form.stops} length_mm={reach} onstops={(stops) => fill({ stops })} />
        <Watts {form} {motor} {own} onfill={fill} onmotor={(m) => (motor = m)} />
      </Fold>
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
      <BandSide
        {card}
        setup={setup?.job_id === jobId ? setup : null}
        count={currentJob.draft.count}
        onbelieve={(id) => void believe(id)}
        ontakeback={() => void takeBack()}
      />
    </section>
  </div>
{:else}
  <p class="soft">Reading the run card …</p>
{/if}

<style>
  .new-edge {
    font-weight: 600;
    color: var(--brass-text);
  }
  header {
    padding-bottom: var(--s3);
  }
  h1 strong {
    font-weight: 650;
    color: var(--jade);
  }
  .run {
    display: grid;
    grid-template-columns: minmax(0, 1.4fr) minmax(min(18rem, 40%), 1fr);
    gap: var(--s6);
    align-items: start;
  }
  .log {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s4);
    justify-items: start;
    border-top: var(--rule) solid var(--ink);
    padding-top: var(--s3);
  }
  .count {
    display: flex;
    align-items: center;
    gap: clamp(var(--s2), 3vw, var(--s5));
  }
  .count button {
    width: 4.5rem;
    height: 4.5rem;
    font-size: var(--figure-large);
    line-height: 1;
    background: var(--jade-pale);
    border-bottom: var(--rule) solid var(--jade);
  }
  .count p {
    min-width: min(9rem, 30vw);
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
  .grow {
    flex: 1;
  }
  .words input {
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
  @media (max-width: 56.25em) {
    .run {
      grid-template-columns: 1fr;
    }
  }
</style>
