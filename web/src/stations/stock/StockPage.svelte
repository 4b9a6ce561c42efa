<script lang="ts">
  import { untrack } from "svelte";

  import { ask, askPatiently, client, wordsOf } from "../../api/client";
  import type { StockAnswer, StockPlan, StockQuestion } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { Latest } from "../../lib/sending/latest";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import HeldBack from "../../parts/HeldBack.svelte";
  import BilletLength from "./BilletLength.svelte";
  import BilletSection from "./BilletSection.svelte";
  import LogEnd from "./LogEnd.svelte";
  import MetalMap from "./MetalMap.svelte";
  import Opening from "./Opening.svelte";
  import Photo from "./Photo.svelte";
  import { type Reckoned, usualReckoning } from "./stock";
  import Reckoning from "./Reckoning.svelte";
  import StockForm from "./StockForm.svelte";
  import Ways from "./Ways.svelte";

  const { params }: { params: { id: string } } = $props();
  const id = $derived(Number(params.id));
  let plan = $state.raw<StockPlan | null>(null);
  let asked = $state.raw(usualReckoning(shop.reference?.losses));
  /** Cuts dragged by hand; null while they lie as worked out. */
  let cuts = $state.raw<number[] | null>(null);
  let fault = $state<Said>("");
  let editing = $state(false);
  const latest = new Latest();

  async function load(): Promise<void> {
    const body: StockQuestion = {
      ...asked,
      board_mm: asked.board_mm ?? (currentJob.id === null ? currentJob.draft.slice_mm : null),
      ...(currentJob.id === null ? {} : { job_id: currentJob.id }),
      ...(currentJob.band?.band_id ? { band_id: currentJob.band.band_id } : {}),
      ...(cuts === null ? {} : { cuts_mm: cuts }),
    };
    try {
      const found = await latest.take(() =>
        askPatiently(() =>
          client.POST("/api/stock/{stock_id}/plan", { params: { path: { stock_id: id } }, body }),
        ),
      );
      if (found === null) return;
      plan = found;
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
  // Another piece, or another job in hand, is asked for; the server answers.
  $effect(() => {
    void id;
    void currentJob.job?.version;
    void currentJob.band?.band_id;
    cuts = null;
    untrack(() => void load());
  });

  function change(changed: Partial<Reckoned>): void {
    asked = { ...asked, ...changed };
    cuts = null;
    void load();
  }

  async function take(): Promise<void> {
    if (currentJob.id === null) return;
    const inHand = currentJob.job?.stock_id === id;
    const path = { job_id: currentJob.id };
    const body = { stock_id: inHand ? null : id };
    currentJob.take(await ask(client.POST("/api/jobs/{job_id}/stock", { params: { path }, body })));
    notice.say(inHand ? "The job is free of it." : "The job is cut from it.");
  }

  async function used(): Promise<void> {
    try {
      const path = { stock_id: id };
      const { change_id } = await ask(
        client.POST("/api/stock/{stock_id}/used", { params: { path } }),
      );
      await load();
      notice.canUndo("It is sawn up and off the rack.", change_id, load);
    } catch (problem) {
      notice.fail(problem);
    }
  }

  const billet = $derived(plan?.billet ?? null);
  const stock = $derived<StockAnswer | null>(plan?.stock ?? null);
  const way = $derived(billet?.worth.ways.find((w) => w.key === billet.worth.best) ?? null);
  const marksSheet = $derived(
    `/api/stock/${id}/marks.pdf?` +
      new URLSearchParams({
        job_id: String(currentJob.id ?? ""),
        ...(currentJob.band?.band_id ? { band_id: String(currentJob.band.band_id) } : {}),
        clean_up_per_face_mm: String(asked.clean_up_per_face_mm),
        cuts: (cuts ?? billet?.cuts_mm ?? []).map((c) => c.toFixed(3)).join(","),
      }).toString(),
  );
</script>

{#if stock && plan}
  <h1>
    <strong class="mono">{stock.label}</strong>, {stock.material_name}{#if stock.parent_label}<span
        class="soft">, part of {stock.parent_label}</span
      >{/if}
  </h1>
  <p class="size">
    <span class="mono">
      {#if stock.kind === "log"}⌀ {shop.say(stock.small_end_mm ?? 0, "length")}{:else}{shop.number(
          stock.thickness_mm ?? 0,
          "length",
        )} × {shop.say(stock.height_mm ?? 0, "length")}{/if} × {shop.say(stock.length_mm, "long")}
    </span>
    · <span class="mono">{shop.number(1000 * stock.volume_m3, "plain")}</span> l of wood
    {#if stock.price !== null}· {shop.money(stock.price)}{/if}
    {#if stock.moisture_pct !== null}· {stock.moisture_pct} % moisture{/if}
    {#if stock.place}· {stock.place}{/if}
    {#if stock.state === "opened"}· <strong>opened: its parts are on the rack</strong>{/if}
    {#if stock.state === "gone"}· <strong>sawn up</strong>{/if}
  </p>
  <div class="verdict" data-verdict={stock.readiness.verdict}>
    <p><strong>{called("stock_verdict", stock.readiness.verdict)}</strong></p>
    {#each stock.readiness.reasons as reason, i (i)}<p>{shop.words(reason)}</p>{/each}
  </div>
  <div class="actions no-print">
    {#if currentJob.id !== null && stock.state === "in"}
      <Action main onclick={() => void take()}
        >{currentJob.job?.stock_id === id
          ? "Free the job of it"
          : `Cut ${currentJob.name} from it`}</Action
      >
    {/if}
    <Action onclick={() => (editing = !editing)}>Edit</Action>
    {#if billet}<Action href={marksSheet}>Marks at true size</Action>{/if}
    {#if stock.state === "in"}<Action onclick={() => void used()}>Sawn up</Action>{/if}
    <Action href="#/stock">Stock</Action>
    <Action href="#/changes/stock/{id}">Changes</Action>
    <Photo {stock} onchanged={() => void load()} />
  </div>
  {#if editing}
    <StockForm
      piece={stock}
      kind={stock.kind === "log" ? "log" : "billet"}
      onsaved={() => {
        editing = false;
        void load();
      }}
    />
  {/if}
  {#if plan.other_wood}
    <p class="fault">
      The job in hand is planned in {plan.other_wood}: its feed and kerf hold for that.
    </p>
  {/if}
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if plan.why_not}<p class="why">{shop.words(plan.why_not)}</p>{/if}
  <HeldBack />
  {#if billet && way}
    <section aria-label="What it gives" aria-live="polite">
      <p class="gives">
        <strong class="mono">{billet.laid.pieces * way.sections}</strong>
        of {currentJob.draft.count} pieces
        <span class="soft"
          >({billet.laid.pieces} across, {way.sections} along) with {plan.cut_with.band_label ||
            "no band chosen"}, kerf {shop.say(plan.cut_with.kerf_mm, "thin")}{plan.cut_with.assumed
            ? ", its feed assumed"
            : ""}</span
        >
      </p>
      <p>
        <span class="mono">{(100 * billet.laid.piece_share).toFixed(0)}</span> % of the thickness is
        pieces, <span class="mono">{(100 * billet.laid.kerf_share).toFixed(0)}</span> % dust,
        <span class="mono">{(100 * billet.laid.rest_share).toFixed(0)}</span> % left over.
        {#if cuts}<Action
            onclick={() => {
              cuts = null;
              void load();
            }}>Lay them anew</Action
          >{/if}
      </p>
      <BilletSection
        thickness_mm={stock.thickness_mm ?? 1}
        height_mm={stock.height_mm ?? 1}
        usable_mm={billet.usable_mm}
        kerf_mm={plan.cut_with.kerf_mm}
        cuts={cuts ?? billet.cuts_mm}
        slices={billet.laid.slices}
        leaves={billet.leaves}
        oncuts={(moved) => {
          cuts = moved;
          void load();
        }}
      />
      <p class="soft">
        Drag a cut, or move it with the arrow keys. Hatched: what truing takes. A brass mark stands
        on the side that a leaf shows once its pair is opened; all {billet.laid.pieces} together make
        a panel <span class="mono">{shop.say(billet.leaves.panel_width_mm, "length")}</span> wide.
      </p>
    </section>
    <Ways {billet} count={currentJob.draft.count} />
  {/if}
  {#if plan.log}
    <section aria-label="What it gives" aria-live="polite">
      <p class="gives"><strong>{shop.words(plan.log.words)}</strong></p>
      <LogEnd plan={plan.log} small_end_mm={stock.small_end_mm ?? 0} bark_mm={stock.bark_mm ?? 0} />
    </section>
  {/if}
  {#if stock.kind === "billet"}
    <BilletLength
      length_mm={stock.length_mm}
      thickness_mm={stock.thickness_mm ?? 1}
      bow_mm={stock.bow_mm}
      twist_mm={stock.twist_mm}
      trim_mm={asked.trim_mm}
      piece_mm={currentJob.draft.length_mm}
      sections={way?.sections ?? 0}
      crosscut_mm={asked.crosscut_kerf_mm}
      marks={plan.metal.marks}
      zones={plan.metal.zones}
    />
    {#if billet}<Opening {stock} plan={billet} kerf_mm={plan.cut_with.kerf_mm} />{/if}
  {/if}
  <Reckoning {stock} {asked} onchange={change} />
  <MetalMap stock_id={id} metal={plan.metal} onchanged={() => void load()} />
{:else if fault}
  <p class="fault" role="alert">{shop.words(fault)}</p>
  <Action href="#/stock">Stock</Action>
{:else}
  <p class="soft">Reading …</p>
{/if}

<style>
  h1 strong {
    color: var(--jade);
  }
  .size {
    padding-bottom: var(--s3);
  }
  .verdict {
    padding: var(--s2) var(--s4);
    border-left: var(--s2) solid var(--ink-soft);
    background: var(--paper);
  }
  .verdict[data-verdict="ready"] {
    border-left-color: var(--jade);
  }
  .verdict[data-verdict="not_ready"] {
    border-left-color: var(--vermilion);
  }
  .actions {
    padding: var(--s3) 0;
  }
  .gives {
    font-size: var(--text-large);
  }
  .gives .mono {
    font-size: var(--figure);
  }
  .gives .soft {
    font-size: var(--text);
  }
  .why {
    font-size: var(--text-large);
  }
</style>
