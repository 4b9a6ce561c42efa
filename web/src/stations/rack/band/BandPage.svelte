<script lang="ts">
  import { tick, untrack } from "svelte";
  import { push } from "svelte-spa-router";

  import { ask, askPatiently, client, Problem, wordsOf } from "../../../api/client";
  import type { BandEventInput, BandPage, DoubtedLife, EventLine } from "../../../api/schema";
  import { freshKey, soon, WRITE_KEY } from "../../../api/writes";
  import { notice } from "../../../lib/notice.svelte";
  import { outbox } from "../../../lib/sending/outbox.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { about, day, duration, significant, type Said } from "../../../lib/figures/units";
  import { isKept } from "../../../lib/edit.svelte";
  import Action from "../../../parts/Action.svelte";
  import Figure from "../../../parts/Figure.svelte";
  import LifeStrip from "../../../parts/pictures/LifeStrip.svelte";
  import BandPhotos from "./BandPhotos.svelte";
  import BandSetUps from "./BandSetUps.svelte";
  import CutsLeft from "./CutsLeft.svelte";
  import EvidenceScale from "./EvidenceScale.svelte";
  import JudgeTips from "./JudgeTips.svelte";
  import LookOver from "./LookOver.svelte";
  import NextLine from "./NextLine.svelte";
  import SharpenCurve from "./SharpenCurve.svelte";
  import WeighForm from "./WeighForm.svelte";
  import Fold from "../../../parts/Fold.svelte";
  import PutOn from "../../../parts/PutOn.svelte";
  import BandForm from "../BandForm.svelte";
  import EventForm from "./EventForm.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id));
  let page = $state<BandPage | null>(null);
  let missing = $state<Said>("");
  let editing = $state(untrack(() => isKept(`band.${Number(params?.id)}`)));

  async function load(band_id: number): Promise<void> {
    try {
      page = await askPatiently(() =>
        client.GET("/api/bands/{band_id}", { params: { path: { band_id } } }),
      );
      missing = "";
    } catch (problem) {
      missing = wordsOf(problem);
    }
  }
  // The address names the band; reading it asks the server.
  $effect(() => void load(id));

  const band = $derived(page?.band ?? null);
  const history = $derived(
    page
      ? [
          ...page.runs.map((run) => ({ at: run.at, key: `r${run.id}`, run, event: null })),
          ...page.events.map((event) => ({ at: event.at, key: `e${event.id}`, run: null, event })),
        ].sort((a, b) => b.at.localeCompare(a.at))
      : [],
  );

  async function record(body: BandEventInput): Promise<void> {
    const params = { path: { band_id: id } };
    // One tap, one key: whether its answer is lost, or it waits, it is done once.
    const key = freshKey();
    const headers = { [WRITE_KEY]: key };
    try {
      await ask(
        client.POST("/api/bands/{band_id}/events", { params, body, headers, signal: soon() }),
      );
    } catch (problem) {
      if (!(problem instanceof Problem) || !problem.unreachable) throw problem;
      const title = `${shop.eventName(body.kind)}, ${band?.label ?? "band"}`;
      await outbox.later({ kind: "event", band_id: id, body }, title, `#/rack/${id}`, key);
      notice.say("Kept here; it is sent once the server answers.");
      return;
    }
    await load(id);
  }

  let form = $state<ReturnType<typeof EventForm>>();
  /** What happened to it is written in a fold. */
  let noting = $state(false);

  async function write(kind: "sharpened" | "scrapped" | "mended"): Promise<void> {
    noting = true;
    await tick();
    form?.open(kind);
  }

  async function judge(value: number, detail: string): Promise<void> {
    await record({ kind: "edge_judged", value, detail, who: "" });
    notice.say("Judged: it wins until the next run.");
  }

  /** Does what the line says: at once where a tap tells all, else in the form below. */
  function act(what: BandPage["next"]["do"]): void {
    const at_once = { clean: "cleaned", look: "looked_at", ask: "still_good" } as const;
    const in_form = { sharpen: "sharpened", scrap: "scrapped", mend: "mended" } as const;
    if (what in at_once)
      void record({ kind: at_once[what as keyof typeof at_once], detail: "", who: "" });
    else if (what in in_form) void write(in_form[what as keyof typeof in_form]);
    else if (what === "demote" && band) void keepFor("rough", band.version);
  }

  async function keepFor(kept_for: "rough", version: number): Promise<void> {
    const params = { path: { band_id: id } };
    await ask(client.PATCH("/api/bands/{band_id}", { params, body: { version, kept_for } }));
    await load(id);
  }

  const AT_ONCE = 8;
  let many = $state(AT_ONCE);

  /** More of the history; runs before the first one here are asked for. */
  async function older(): Promise<void> {
    many += AT_ONCE;
    const first = page?.runs[0];
    if (!page || !first || many < history.length || page.runs.length >= page.band.runs) return;
    const params = { path: { band_id: id }, query: { before: first.id } };
    const earlier = await ask(client.GET("/api/bands/{band_id}/runs", { params }));
    page = { ...page, runs: [...earlier, ...page.runs] };
  }

  /** What a kind of event tells more, in words. */
  function eventWords(event: EventLine): string {
    const parts: string[] = [];
    const facts = event.facts as Record<string, unknown>;
    if (event.kind === "weighed" && event.value !== null)
      parts.push(`${shop.say(event.value, "feed")} by ${String(facts["weight_kg"])} kg`);
    if (event.kind === "inspected")
      parts.push({ right: "passed", claim: "to be claimed" }[event.detail] ?? "not all looked at");
    if (typeof facts["way"] === "string") parts.push(facts["way"].replaceAll("_", " "));
    if (typeof facts["ground"] === "string") parts.push(`${facts["ground"]} ground`);
    if (event.minutes !== null) parts.push(`${event.minutes} min`);
    if (event.cost !== null) parts.push(shop.money(event.cost));
    if (event.after_m_min !== null)
      parts.push(`first cut after at ${shop.say(event.after_m_min, "feed")}`);
    return parts.join(", ");
  }

  async function removeRun(run_id: number): Promise<void> {
    const { change_id } = await ask(
      client.DELETE("/api/runs/{run_id}", { params: { path: { run_id } } }),
    );
    await load(id);
    notice.canUndo("The run is taken back and the wear with it.", change_id, () => load(id));
  }

  async function believe(run_id: number): Promise<void> {
    await ask(client.POST("/api/runs/{run_id}/confirm", { params: { path: { run_id } } }));
    await load(id);
  }

  async function believeLife(life: DoubtedLife): Promise<void> {
    const kind = life.ended ? "life_confirmed" : "still_good";
    await record({ kind, detail: "", value: life.ended ? life.number : null, who: "" });
  }

  async function removeEvent(event_id: number): Promise<void> {
    const { change_id } = await ask(
      client.DELETE("/api/events/{event_id}", { params: { path: { event_id } } }),
    );
    await load(id);
    notice.canUndo("The entry is taken back.", change_id, () => load(id));
  }

  async function remove(): Promise<void> {
    const { change_id } = await ask(
      client.DELETE("/api/bands/{band_id}", { params: { path: { band_id: id } } }),
    );
    await push("/rack");
    notice.canUndo(`${band?.label ?? "The band"} is deleted.`, change_id, () =>
      push(`/rack/${id}`),
    );
  }
</script>

{#if missing}
  <h1>{shop.words(missing)}</h1>
  <Action href="#/rack">To the rack</Action>
{:else if page && band}
  <header>
    <h1><span class="mono">{band.label}</span></h1>
    <p>
      {shop.number(band.width_mm, "length")} × {shop.say(band.thickness_mm, "thin")},
      {shop.tpi(band) === null ? "continuous" : `${shop.tpi(band)} TPI`}
      {shop.form(band.form)}, {shop.steel(band.steel)}, {shop.say(band.length_mm, "length")} long.
      {#if band.mounted_on}<strong
          >On {band.mounted_on}, {band.tension_state === "on" ? "under tension" : "slack"}.</strong
        >
      {:else if band.state === "scrapped"}<strong>Scrapped: {band.scrap_reason}.</strong>
      {:else if band.state === "out"}<strong>Out for sharpening.</strong>
      {:else if band.place}Kept: {band.place}.{/if}
      {band.note}
      {#if band.kept_for !== "all"}<strong>For {band.kept_for.replaceAll("_", " ")} only.</strong
        >{/if}
      {#if band.damage}<strong class="defects">{band.damage}.</strong>
      {:else if band.teeth_lost > 0}{band.teeth_lost} of its teeth missing, as this shop allows.{/if}
    </p>
  </header>
  {#if editing}
    <BandForm
      {band}
      ondone={() => {
        editing = false;
        void load(id);
      }}
    />
  {/if}
  <NextLine {page} ondo={act} />
  {#if band.state !== "scrapped"}
    {#if !band.mounted_on && band.state !== "out"}<PutOn {band} ondone={() => void load(id)} />{/if}
    <Fold name="Note something" gist="sharpened, cleaned, measured, damaged …" bind:open={noting}>
      <EventForm {band} onrecord={record} bind:this={form} />
      <WeighForm {band} ondone={() => void load(id)} />
    </Fold>
  {/if}
  <LifeStrip {page} />
  <div class="figures">
    <Figure
      label="likely left"
      value={about(page.life.left_50_m, 2)}
      unit="m of oak"
      note="9 in 10 last {about(page.life.left_90_m, 2)}, 1 in 10 {about(page.life.left_10_m, 2)}"
      explained={{
        title: "Metres left on this edge",
        value: page.life.left_50_m,
        unit: "m",
        formula:
          "Weibull lives of known shape 2.5; the table’s life counts as two bands, this shop’s retired and running edges as themselves; what else than metres speaks of the edge counts as metres used",
        inputs: [
          { name: "used since it was sharp", value: band.edge_equivalent_m, unit: "m" },
          { name: "dullness by all evidence", value: band.dullness, unit: "" },
          { name: "table’s life", value: page.life.prior_m, unit: "m" },
          { name: "median life with this shop’s record", value: page.life.median_m, unit: "m" },
          { name: "edges worn out here", value: page.life.retired, unit: "" },
          { name: "edges still running", value: page.life.running, unit: "" },
        ],
        source: "This shop’s record of the same steel, as often sharpened",
        uncertainty: "The fan on the strip; abrasiveness of the stock by a factor 1.5.",
        rule: "",
      }}
    />
    <Figure
      label="gum"
      value={significant(100 * band.fouling, 2)}
      unit="%"
      note="cleaning sets it back"
    />
    <Figure
      label="bending used"
      value={significant(100 * band.bending_share, 2)}
      unit="%"
      note="good to a factor of ten"
    />
    <Figure
      label="sharpened"
      value={String(band.sharpenings)}
      unit="times"
      note="{band.runs} runs since {day(band.arrived_at)}"
    />
  </div>
  {#each page.life.doubted as life (life.number)}
    <p class="asked">
      {life.ended ? "A life" : "This edge’s life"} of {about(life.equivalent_m, 2)} m is far from every
      other here: it teaches nothing until somebody says that it was so.
      <Action onclick={() => void believeLife(life)}>Yes, it was so</Action>
    </p>
  {/each}
  {#if band.state !== "scrapped"}
    <Fold name="How dull, and how that is known" gist={band.edge}>
      <JudgeTips onjudge={(value, detail) => void judge(value, detail)} />
      <EvidenceScale {page} />
    </Fold>
    <Fold name="What is left in cuts"><CutsLeft {page} /></Fold>
    <LookOver {band} ondone={() => void load(id)} />
    <Fold name="When to sharpen"><SharpenCurve {page} /></Fold>
  {:else}<CutsLeft {page} />{/if}
  <Fold name="Photographs"><BandPhotos {page} onchanged={() => load(id)} /></Fold>
  <Fold name="Set-ups"><BandSetUps band_id={id} /></Fold>
  <div class="actions no-print">
    <Action onclick={() => (editing = !editing)}>Edit</Action>
    <Action onclick={() => void remove()}>Delete</Action>
    <Action href="#/faults/book?band={id}">Its troubles</Action>
    <Action href="#/changes/band/{id}">Its changes</Action>
    <Action href="/labels.pdf?bands={id}&kind=roll-62">Its label</Action>
    <Action href="#/rack">Rack</Action>
  </div>
  <section class="history">
    <h2>History</h2>
    <ul class="rows">
      {#each history.slice(0, many) as item (item.key)}
        <li>
          <span class="mono soft">{day(item.at)}</span>
          {#if item.run}
            <span>
              {item.run.pieces} × {shop.say(item.run.length_mm, "long")} of {shop.material(
                item.run.material,
              )?.name ?? item.run.material},
              {shop.say(item.run.height_mm, "length")} high, on {item.run.saw}
              {#if item.run.symptoms.length > 0}<strong class="trouble"
                  >{item.run.symptoms.join(", ").replaceAll("_", " ")}</strong
                >{/if}
              {item.run.note}
              {#if item.run.to_confirm}
                <br /><strong class="trouble">{shop.words(item.run.to_confirm)}</strong>
                It moves no wear yet.
                <Action onclick={() => void believe(item.run.id)}>Yes, it was so</Action>
              {/if}
            </span>
            <span class="mono">{shop.say(item.run.feed_m_min, "feed")}</span>
            <span class="mono">{duration(item.run.time_s)}</span>
            <Action onclick={() => void removeRun(item.run.id)}>Undo</Action>
          {:else if item.event}
            <span
              ><strong>{shop.eventName(item.event.kind)}</strong>
              {item.event.kind === "inspected" ? "" : item.event.detail}
              {eventWords(item.event)}</span
            >
            <span></span><span>{item.event.who}</span>
            {#if !["arrived", "mounted", "dismounted"].includes(item.event.kind)}
              <Action onclick={() => void removeEvent(item.event.id)}>Undo</Action>
            {:else}<span></span>{/if}
          {/if}
        </li>
      {/each}
    </ul>
    {#if history.length > many || page.runs.length < band.runs}
      <Action onclick={() => void older()}>Earlier</Action>
    {/if}
  </section>
{:else}
  <p class="soft">Reading the band …</p>
{/if}

<style>
  .defects {
    color: var(--vermilion);
  }
  header {
    display: grid;
    gap: var(--s2);
  }
  h1 {
    font-weight: 700;
  }
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3) var(--s6);
    padding: var(--s3) 0;
    margin: var(--s3) 0;
    border-top: var(--rule) solid var(--ink);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .asked {
    padding-bottom: var(--s2);
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
  }
  .history {
    padding-top: var(--s5);
  }
  li {
    grid-template-columns: 8rem 1fr 7rem 7rem 7rem;
  }
  .trouble {
    color: var(--brass-text);
  }
  @media (max-width: 56.25em) {
    li {
      grid-template-columns: 1fr auto auto;
      padding: var(--s2) 0;
    }
    li > span:nth-child(2) {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
</style>
