<script lang="ts">
  import { onDestroy } from "svelte";

  import { ask, client, Problem, wordsOf } from "../../api/client";
  import type { CutListQuestion, StockAnswer, YieldAnswer } from "../../api/schema";
  import { Edit } from "../../lib/edit.svelte";
  import { Latest } from "../../lib/sending/latest";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { fixed, readNumber, type Said, unitSize } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import BilletPlan from "./BilletPlan.svelte";

  type Line = Record<string, string>;
  interface Draft {
    billets: Line[];
    pieces: Line[];
    kerf_mm: number;
    clean_up_per_face_mm: number;
    prepare_loss_mm: number;
    crosscut_kerf_mm: number;
    trim_mm: number;
    rip_kerf_mm: number | null;
    along_curve: boolean;
  }
  const BILLET = [
    ["label", "Billet"],
    ["thickness_mm", "Thick"],
    ["height_mm", "High"],
    ["length_mm", "Long"],
    ["bow_mm", "Bow"],
  ] as const;
  const PIECE = [
    ["label", "Piece"],
    ["thickness_mm", "Thick"],
    ["height_mm", "High"],
    ["length_mm", "Long"],
    ["count", "At most"],
    ["value", "Each worth"],
  ] as const;
  const LOSSES = [
    ["kerf_mm", "Kerf of the band"],
    ["clean_up_per_face_mm", "Clean-up, each face"],
    ["prepare_loss_mm", "Preparing takes"],
    ["crosscut_kerf_mm", "Kerf of the crosscut"],
    ["trim_mm", "Trim, each end"],
  ] as const;
  const PLAIN = new Set(["count", "value"]);
  const SETTLE_MS = 250;
  const perUnit = $derived(unitSize("length", shop.units));

  /** Before the tables have come. */
  const NO_LOSSES = {
    kerf_mm: 0,
    clean_up_per_face_mm: 0,
    prepare_loss_mm: 0,
    crosscut_kerf_mm: 0,
    trim_mm: 0,
  };

  /** A first billet and piece by the job in hand. */
  function start(): Draft {
    const d = currentJob.draft;
    const usual = shop.reference?.losses ?? NO_LOSSES;
    const say = (mm: number) => String(Number((mm / perUnit).toFixed(3)));
    return {
      billets: [
        {
          label: "A",
          thickness_mm: say(d.billet_mm ?? 60),
          height_mm: say(d.height_mm),
          length_mm: say(d.length_mm + 100),
          bow_mm: "0",
        },
      ],
      pieces: [
        {
          label: d.name || "piece",
          thickness_mm: say(d.slice_mm ?? 14),
          height_mm: say(d.height_mm),
          length_mm: say(d.length_mm),
          count: String(d.count),
          value: "10",
        },
      ],
      kerf_mm: currentJob.band?.kerf_mm ?? usual.kerf_mm,
      clean_up_per_face_mm: usual.clean_up_per_face_mm,
      prepare_loss_mm: usual.prepare_loss_mm,
      crosscut_kerf_mm: usual.crosscut_kerf_mm,
      trim_mm: usual.trim_mm,
      rip_kerf_mm: null,
      along_curve: false,
    };
  }
  const edit = new Edit<Draft>(
    { key: "cutlist", title: "A cut list", href: "#/cutlist" },
    start(),
    0,
  );
  onDestroy(() => edit.left());
  const draft = $derived(edit.draft);

  let plan = $state.raw<YieldAnswer | null>(null);
  let general = $state<Said>("");
  let faults = $state<Record<string, Said>>({});
  let working = $state(false);
  const latest = new Latest();

  function read(line: Line, key: string): number | string {
    if (key === "label") return (line[key] ?? "").trim();
    const typed = readNumber(line[key] ?? "");
    // What cannot be read is sent as it stands: the server names the field and what it takes.
    if (typed === null) return line[key] ?? "";
    return PLAIN.has(key) ? typed : typed * perUnit;
  }
  const question = $derived({
    ...Object.fromEntries(LOSSES.map(([key]) => [key, draft[key]])),
    rip_kerf_mm: draft.rip_kerf_mm,
    along_curve: draft.along_curve,
    billets: draft.billets.map((l) => Object.fromEntries(BILLET.map(([k]) => [k, read(l, k)]))),
    pieces: draft.pieces.map((l) => Object.fromEntries(PIECE.map(([k]) => [k, read(l, k)]))),
  } as unknown as CutListQuestion);

  /** How much longer it is being looked for: 0 the first look. */
  let looking = $state(0);
  let stop: AbortController | null = null;

  /** Looks, then longer while a better plan is possible; each look shows the best so far. */
  async function solve(body: CutListQuestion): Promise<void> {
    stop?.abort();
    stop = new AbortController();
    const { signal } = stop;
    working = true;
    let best: YieldAnswer | null = null;
    try {
      for (let longer = 0; ; longer += 1) {
        looking = longer;
        const asked = { ...body, longer };
        const found = await latest.take(() =>
          ask(client.POST("/api/yield", { body: asked, signal })),
        );
        if (found === null) return;
        if (best === null || found.value >= best.value) plan = best = found;
        general = "";
        faults = {};
        if (found.looks_left === 0) break;
      }
    } catch (problem) {
      if (signal.aborted) return;
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path, f.message]));
      general = wordsOf(problem);
      plan = null;
    }
    working = false;
  }

  /** The best so far is taken. */
  function enough(): void {
    stop?.abort();
    working = false;
  }
  onDestroy(() => stop?.abort());
  // Once typing has stopped the server plans anew.
  $effect(() => {
    const body = question;
    const timer = setTimeout(() => void solve(body), SETTLE_MS);
    return () => clearTimeout(timer);
  });

  type Table = "billets" | "pieces";
  function type(table: Table, place: number, key: string, text: string): void {
    edit.set({
      [table]: draft[table].map((l, i) => (i === place ? { ...l, [key]: text } : l)),
    });
  }
  function add(table: Table): void {
    const last = draft[table].at(-1) ?? {};
    const label = table === "billets" ? nextLabel(last.label ?? "A") : `${last.label ?? "piece"} 2`;
    edit.set({ [table]: [...draft[table], { ...last, label }] });
  }
  function nextLabel(label: string): string {
    const end = label.slice(-1);
    return /[A-Ya-y]/.test(end)
      ? label.slice(0, -1) + String.fromCharCode(end.charCodeAt(0) + 1)
      : `${label}2`;
  }
  function drop(table: Table, place: number): void {
    edit.set({ [table]: draft[table].filter((_, i) => i !== place) });
  }
  const MOST_BILLETS = 50;

  /** The rack's billets of the job's wood; all of them where it has none. */
  async function fromRack(): Promise<void> {
    const rack = (await ask(client.GET("/api/stock"))).filter((s) => s.kind === "billet");
    const own = rack.filter((s) => s.material === currentJob.draft.material);
    const taken = (own.length > 0 ? own : rack).slice(0, MOST_BILLETS);
    if (taken.length === 0) {
      general = "No billet lies on the rack: put some there, under Stock.";
      return;
    }
    edit.set({ billets: taken.map(lineOf) });
  }
  function lineOf(billet: StockAnswer): Line {
    const say = (mm: number) => String(Number((mm / perUnit).toFixed(3)));
    return {
      label: billet.label,
      thickness_mm: say(billet.thickness_mm ?? 0),
      height_mm: say(billet.height_mm ?? 0),
      length_mm: say(billet.length_mm),
      bow_mm: say(Math.abs(billet.bow_mm)),
    };
  }
  const labels = $derived(draft.pieces.map((p) => p.label ?? ""));
</script>

{#snippet table(name: Table, columns: readonly (readonly [string, string])[])}
  <table>
    <thead>
      <tr>
        {#each columns as [key, word] (key)}<th
            >{word}{key === "label" || PLAIN.has(key) ? "" : `, ${shop.unit("length")}`}</th
          >{/each}
        <th><span class="unseen">Remove</span></th>
      </tr>
    </thead>
    <tbody>
      {#each draft[name] as line, i (i)}
        <tr>
          {#each columns as [key, word] (key)}
            <td
              ><input
                class:mono={key !== "label"}
                aria-label="{word} of {line.label || i + 1}"
                aria-invalid={faults[`${name}.${i}.${key}`] ? "true" : undefined}
                inputmode={key === "label" ? "text" : "decimal"}
                value={line[key] ?? ""}
                oninput={(e) => type(name, i, key, e.currentTarget.value)}
              /></td
            >
          {/each}
          <td
            ><button
              type="button"
              disabled={draft[name].length < 2}
              aria-label="Remove {line.label || i + 1}"
              onclick={() => drop(name, i)}>×</button
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <Action onclick={() => add(name)}
    >{name === "billets" ? "Another billet" : "Another piece"}</Action
  >
{/snippet}

<h1>Which pieces from which billets</h1>
<div class="given no-print">
  <section>
    <h2>Billets</h2>
    {@render table("billets", BILLET)}
    <Action onclick={() => void fromRack()}>Take them from the rack</Action>
  </section>
  <section>
    <h2>Pieces wanted</h2>
    {@render table("pieces", PIECE)}
  </section>
</div>
<details class="no-print">
  <summary>What sawing takes</summary>
  <div class="losses">
    {#each LOSSES as [key, word] (key)}
      <QuantityField
        label={word}
        kind="thin"
        value={draft[key]}
        error={faults[key] ?? ""}
        onvalue={(v) => edit.set({ [key]: v ?? 0 })}
      />
    {/each}
    <QuantityField
      label="Kerf of ripping a slice"
      help="Empty: a slice is one piece, and is not ripped into pieces side by side."
      kind="thin"
      value={draft.rip_kerf_mm}
      error={faults.rip_kerf_mm ?? ""}
      onvalue={(v) => edit.set({ rip_kerf_mm: v })}
    />
  </div>
  <label class="along">
    <input
      type="checkbox"
      checked={draft.along_curve}
      onchange={(e) => edit.set({ along_curve: e.currentTarget.checked })}
    />
    Saw bowed billets along their curve
  </label>
</details>
<section aria-live="polite" aria-label="The plan" aria-busy={working}>
  {#if general}
    <p class="fault" role="alert">{shop.words(general)}</p>
  {:else if plan}
    <p class="made">
      {#each Object.entries(plan.made) as [label, count] (label)}
        <span><strong class="mono">{count}</strong> {label}</span>
      {/each}
      <span>worth <strong class="mono">{shop.money(plan.value)}</strong></span>
      <span class="soft"
        >{plan.best
          ? "no plan makes more"
          : plan.at_most === null
            ? "the best of the ways looked at"
            : `the best found; none makes over ${shop.money(plan.at_most)}`}</span
      >
      {#if working}
        <span role="status">Looking longer, {looking} of {looking + plan.looks_left} …</span>
        <Action onclick={enough}>This will do</Action>
      {/if}
      <Action onclick={() => globalThis.print()}>Print</Action>
    </p>
    {#each plan.billets as billet (billet.label)}
      <BilletPlan {billet} {labels} />
    {/each}
    <p class="soft">
      {#if plan.left_over[0]}
        Largest left whole:
        <span class="mono"
          >{shop.number(plan.left_over[0].thickness_mm, "length")} × {shop.number(
            plan.left_over[0].height_mm,
            "length",
          )} × {shop.say(plan.left_over[0].length_mm, "long")}</span
        >
        of {plan.billets[plan.left_over[0].billet]?.label}.
      {/if}
      Dust {fixed(1000 * plan.kerf_m3, 1)} l, lost otherwise {fixed(1000 * plan.waste_m3, 1)} l. Slices
      are numbered in the order they are sawn.
    </p>
  {:else}
    <p class="soft">Planning …</p>
  {/if}
</section>

<style>
  .given {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
    gap: var(--s5);
  }
  table {
    table-layout: fixed;
  }
  th:last-child {
    width: var(--touch);
  }
  th {
    font-size: var(--text-small);
    color: var(--ink-soft);
    font-weight: 600;
  }
  td {
    padding: 2px var(--s1) 2px 0;
  }
  input {
    width: 100%;
    min-width: 0;
  }
  input[aria-invalid="true"] {
    border-bottom-color: var(--vermilion);
  }
  td button {
    min-width: var(--touch);
    min-height: var(--touch);
    font-size: var(--text-large);
  }
  .unseen {
    position: absolute;
    clip-path: inset(50%);
  }
  .losses {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(12rem, 100%), 1fr));
    gap: var(--s4);
    padding: var(--s3) 0;
  }
  .along {
    display: flex;
    align-items: center;
    gap: var(--s2);
    min-height: var(--touch);
  }
  .along input {
    width: auto;
  }
  .made {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s5);
    align-items: baseline;
    padding-top: var(--s3);
    border-top: var(--rule) solid var(--ink);
  }
  @media (max-width: 45em) {
    .given {
      grid-template-columns: 1fr;
    }
  }
</style>
