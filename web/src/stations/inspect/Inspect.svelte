<script lang="ts">
  import { onDestroy } from "svelte";

  import { ask, askPatiently, client } from "../../api/client";
  import type { FaceAnswer, FaceInput, FacePage } from "../../api/schema";
  import { FOUR, NINE, type PlaceToRead } from "../../drawings/relief";
  import { Edit } from "../../lib/edit.svelte";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall } from "../../lib/storage";
  import { ticket } from "../../lib/ticket.svelte";
  import { day, readNumber, time } from "../../lib/units";
  import Action from "../../parts/Action.svelte";
  import ActionBar from "../../parts/ActionBar.svelte";
  import Keypad from "../../parts/Keypad.svelte";
  import Choices from "../../parts/Choices.svelte";
  import Look from "./Look.svelte";
  import Parts from "./Parts.svelte";
  import Places from "./Places.svelte";
  import Relief from "./Relief.svelte";
  import Trial from "./Trial.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const jobId = $derived(Number(params?.id) || ticket.id);
  const CALIPER_TRIES = 8;

  interface Draft {
    points: "four" | "nine" | "any";
    /** Places tapped on the board, where any may be read. */
    own: PlaceToRead[];
    /** By place, as typed in the units shown. */
    typed: string[];
    piece: string;
    simulated: boolean;
    roughness: number | null;
    ridge_mm: number | null;
    /** It is a trial on another wood. */
    trial: string;
    guided: NonNullable<FaceInput["guided"]>;
  }
  const LED: Readonly<Record<NonNullable<FaceInput["guided"]>, string>> = {
    "": "not said",
    fence: "the fence",
    point: "a single point",
    line: "a scribed line, by hand",
  };
  const BLANK: Draft = {
    points: "nine",
    own: [],
    typed: [],
    piece: "",
    simulated: false,
    roughness: null,
    ridge_mm: null,
    trial: "",
    guided: "",
  };
  function begun(job: number | null): Edit<Draft> {
    const place = { key: `face.${job ?? "none"}`, title: "A face", href: `#/inspect/${job ?? ""}` };
    return new Edit(place, BLANK, 0);
  }

  let page = $state.raw<FacePage | null>(null);
  let edit = $state.raw(begun(null));
  let current = $state(0);
  let shown = $state<number | null>(null);
  let beside = $state<number | null>(null);
  let busy = $state(false);
  let field = $state<HTMLInputElement>();

  const draft = $derived(edit.draft);
  const places = $derived<PlaceToRead[]>(
    draft.points === "four" ? FOUR : draft.points === "nine" ? NINE : draft.own,
  );
  const faces = $derived(page?.faces ?? []);
  const face = $derived(faces.find((f) => f.id === shown) ?? faces[0] ?? null);
  const before = $derived<FaceAnswer | null>(
    faces.find((f) => f.id === beside) ?? faces[faces.indexOf(face as FaceAnswer) + 1] ?? null,
  );
  const complete = $derived(
    places.length > 2 && places.every((_, i) => readMm(draft.typed[i]) !== null),
  );

  async function load(id: number): Promise<void> {
    if (ticket.id !== id) await ticket.open(id);
    const path = { job_id: id };
    page = await askPatiently(() => client.GET("/api/jobs/{job_id}/faces", { params: { path } }));
  }
  // The job in hand names the faces; reading them asks the server.
  $effect(() => {
    if (!jobId) return;
    edit = begun(jobId);
    load(jobId).catch((p: unknown) => notice.fail(p));
  });
  onDestroy(() => edit.left());
  const gradeName = (grade: number) =>
    shop.reference?.roughness.find((r) => r.grade === grade)?.name ?? "";

  const perUnit = $derived(shop.units === "inch" ? 25.4 : 1);
  function readMm(text: string | undefined): number | null {
    const read = text ? readNumber(text) : null;
    return read === null ? null : read * perUnit;
  }

  function type(place: number, text: string): void {
    const typed = places.map((_, i) => (i === place ? text : (draft.typed[i] ?? "")));
    edit.set({ typed });
  }

  /** Where fingers type, the large keys serve: the device's own would cover the board. */
  function focusField(): void {
    if (globalThis.matchMedia?.("(pointer: fine)").matches) field?.focus();
  }

  /** The next point by itself, once one is read. */
  function next(): void {
    current = Math.min(current + 1, places.length - 1);
    if (document.activeElement === field) field?.select();
  }

  async function probe(): Promise<void> {
    const place = places[current];
    if (!jobId || !place || busy) return;
    busy = true;
    try {
      for (let i = 0; i < CALIPER_TRIES; i += 1) {
        try {
          const body = { along: place.along, up: place.up, board: faces.length };
          const path = { job_id: jobId };
          const got = await ask(
            client.POST("/api/jobs/{job_id}/probe", { params: { path }, body }),
          );
          type(current, String(Number((got.value_mm / perUnit).toFixed(3))));
          if (got.simulated) edit.set({ simulated: true });
          next();
          return;
        } catch (problem) {
          if (i === CALIPER_TRIES - 1) throw problem;
        }
      }
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
    }
  }

  async function save(): Promise<void> {
    if (!jobId || busy) return;
    busy = true;
    try {
      const readings = places.map(
        (p, i) => [p.along, p.up, readMm(draft.typed[i]) ?? 0] as [number, number, number],
      );
      const body: FaceInput = {
        job_id: jobId,
        readings,
        piece: draft.piece,
        simulated: draft.simulated,
        roughness: draft.roughness as FaceInput["roughness"],
        ridge_mm: draft.ridge_mm,
        trial: draft.trial,
        guided: draft.guided,
        who: recall("who", ""),
      };
      const kept = await ask(client.POST("/api/faces", { body }));
      edit.discard();
      edit = begun(jobId);
      current = 0;
      shown = beside = null;
      await load(jobId);
      if (kept.change_id !== null && kept.change_id !== undefined) {
        notice.canUndo("The face is kept.", kept.change_id, () => load(jobId));
      }
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
    }
  }

  async function takeBack(id: number): Promise<void> {
    if (!jobId) return;
    const path = { face_id: id };
    const { change_id } = await ask(client.DELETE("/api/faces/{face_id}", { params: { path } }));
    await load(jobId);
    notice.canUndo("The face is taken back, and what it taught.", change_id, () => load(jobId));
  }
</script>

{#if !jobId}
  <section class="empty">
    <h1>No job is in hand.</h1>
    <Action main href="#/jobs">Choose a job</Action>
  </section>
{:else if page?.why_not && faces.length === 0}
  <section class="empty">
    <h1>Nothing to inspect yet.</h1>
    <p>{page.why_not}</p>
    <Action main href="#/plan">To Plan</Action>
  </section>
{:else if page}
  <h1>Inspect <strong>{ticket.name}</strong></h1>
  {#if page.why_not}<p class="soft">{page.why_not}</p>{/if}
  <div class="two">
    <section aria-label="Read a face">
      <Trial
        proposal={page.proposal ?? null}
        trial={draft.trial}
        judged={faces.find((f) => f.trial !== "")?.judgement ?? null}
        ontrial={(trial) => edit.set({ trial })}
      />
      <Choices
        legend="Read it at"
        chosen={draft.points}
        options={[
          { key: "nine", name: "nine points" },
          { key: "four", name: "four corners" },
          { key: "any", name: "any points", note: "tap the board" },
        ]}
        onchoose={(points) => {
          edit.set({ points, typed: [], own: [] });
          current = 0;
        }}
      />
      <Places
        points={draft.points}
        {places}
        typed={draft.typed}
        {current}
        onpick={(i) => {
          current = i;
          focusField();
        }}
        onadd={(place) => {
          edit.set({ own: [...draft.own, place] });
          current = draft.own.length - 1;
          focusField();
        }}
      />
      {#if places[current]}
        <Keypad
          text={draft.typed[current] ?? ""}
          places={shop.units === "inch" ? 3 : 2}
          ontext={(text) => type(current, text)}
          onwhole={next}
        />
      {/if}
      <form
        onsubmit={(e) => {
          e.preventDefault();
          next();
        }}
      >
        <label for="face-reading"
          >{places[current]
            ? `Thickness at ${places[current]?.name}, ${shop.unit("length")}`
            : "Tap the board where you read it"}</label
        >
        <div class="row">
          <input
            id="face-reading"
            bind:this={field}
            inputmode="decimal"
            autocomplete="off"
            class="mono"
            disabled={!places[current]}
            value={draft.typed[current] ?? ""}
            oninput={(e) => type(current, e.currentTarget.value)}
          />
          <Action type="submit">Next point</Action>
          {#if page.caliper}<Action onclick={() => void probe()}>Read with the caliper</Action>{/if}
        </div>
        <label for="face-piece">Which piece</label>
        <input
          id="face-piece"
          value={draft.piece}
          oninput={(e) => edit.set({ piece: e.currentTarget.value })}
        />
        <label for="face-guided">Led by</label>
        <select
          id="face-guided"
          value={draft.guided}
          onchange={(e) => edit.set({ guided: e.currentTarget.value as Draft["guided"] })}
        >
          {#each Object.entries(LED) as [key, name] (key)}<option value={key}>{name}</option>{/each}
        </select>
      </form>
      <Look
        roughness={draft.roughness}
        ridge_mm={draft.ridge_mm}
        onroughness={(roughness) => edit.set({ roughness })}
        onridge={(ridge_mm) => edit.set({ ridge_mm })}
      />
      {#if draft.simulated}<p class="soft">
          Read from a stand-in: it is kept marked so, and teaches nothing.
        </p>{/if}
      <ActionBar>
        <Action main disabled={!complete || busy} onclick={() => void save()}
          >{draft.trial ? "Keep the trial" : "Keep the face"}</Action
        >
      </ActionBar>
    </section>
    <section aria-live="polite" aria-label="The face">
      {#if face}
        {#if face.advice}
          <div class="advice">
            <p><strong>{shop.words(face.advice.change)}</strong></p>
            <p>{face.advice.cause}</p>
          </div>
        {:else}
          <p class="fine">
            <strong
              >{face.face.parts.some((p) => p.verdict === "cannot_tell")
                ? "Nothing is surely over the tolerance; some of it cannot be told."
                : "All of it is within the tolerance: change nothing."}</strong
            >
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
            <strong>Ridges {shop.say(face.ridge_mm ?? 0, "thin")} apart:</strong>
            <span class="mono">{shop.number(face.ridges.frequency_Hz, "plain")} Hz</span>.
            {face.ridge_words}
          </p>
        {/if}
        <Parts {face} {before} />
        <p class="soft">
          {face.band_label} on {face.saw_name} at
          <span class="mono">{shop.say(face.feed_m_min, "feed")}</span
          >{#if face.feed_force_N !== null}, pushed with about <span class="mono"
              >{shop.say(face.feed_force_N, "force")}</span
            >{/if}.
        </p>
      {:else}
        <p class="soft">
          Measure a sawn piece with the caliper: its parts come back against the job’s tolerance,
          with the one thing to change.
        </p>
      {/if}
      {#if face?.moved}
        <p>
          This face moved the push aside from <span class="mono"
            >{shop.number(face.moved.before, "plain")}</span
          >
          to <strong class="mono">{shop.number(face.moved.after, "plain")}</strong> times the usual; taken
          back, it is unlearned.
        </p>
      {/if}
      {#if page.trend}<p data-trend={page.trend.verdict}>{page.trend.words}</p>{/if}
      {#if page.side && page.side.doubted > 0}
        <p class="soft">
          {page.side.doubted === 1 ? "One face is" : `${page.side.doubted} faces are`} far from the usual
          and left out until others agree: was it that feed?
        </p>
      {/if}
      {#if page.side && page.side.faces > 0}
        <p>
          {page.side.faces === 1 ? "One face" : `${page.side.faces} faces`} of this saw: the wood pushes
          its band aside <strong class="mono">{shop.number(page.side.factor, "plain")}</strong>
          times as much as usual (eight in ten: {shop.number(page.side.low, "plain")} to {shop.number(
            page.side.high,
            "plain",
          )}). Plan reckons with it.
        </p>
      {/if}
    </section>
  </div>
  {#if faces.length > 0}
    <h2>Faces of this job</h2>
    <ul class="faces">
      {#each faces as f (f.id)}
        <li>
          <span class="mono">{day(f.at)} {time(f.at)}</span>
          <span
            >{f.piece || "a piece"}{f.trial ? `, a trial on ${f.trial_name}` : ""}{f.simulated
              ? ", from a stand-in"
              : ""}</span
          >
          <span>{f.advice ? f.advice.part : "nothing over"}</span>
          <span class="acts">
            <Action onclick={() => (shown = f.id)}>Show</Action>
            <Action onclick={() => (beside = f.id)}>Beside it</Action>
            <Action onclick={() => void takeBack(f.id)}>Take back</Action>
          </span>
        </li>
      {/each}
    </ul>
  {/if}
{:else}
  <p class="soft">Reading …</p>
{/if}

<style>
  .two {
    display: grid;
    grid-template-columns: minmax(18rem, 26rem) 1fr;
    gap: var(--s6);
    padding-top: var(--s3);
  }
  form {
    display: grid;
    gap: var(--s1);
    padding-bottom: var(--s4);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: end;
  }
  label {
    font-weight: 600;
  }
  input {
    min-height: var(--touch);
    font-size: var(--text-large);
    width: 9rem;
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
  }
  #face-piece {
    width: 100%;
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
  select {
    min-height: var(--touch);
    font-size: var(--text-large);
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
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
  .faces {
    list-style: none;
    padding: 0;
  }
  .faces li {
    display: grid;
    grid-template-columns: 12rem 1fr 8rem auto;
    gap: var(--s4);
    align-items: center;
    border-top: var(--rule) solid var(--hairline);
  }
  .acts {
    display: flex;
  }
  @media (max-width: 900px) {
    .two {
      grid-template-columns: 1fr;
    }
    .faces li {
      grid-template-columns: 1fr 1fr;
      gap: 0 var(--s3);
      padding: var(--s2) 0;
    }
  }
</style>
