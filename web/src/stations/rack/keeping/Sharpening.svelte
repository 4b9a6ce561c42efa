<script lang="ts">
  import { ask, askPatiently, client } from "../../../api/client";
  import type { BandAnswer, BandEventInput, NextLine } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { percent } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import Who from "../../../parts/fields/Who.svelte";
  import SharpenCard from "./SharpenCard.svelte";
  import RackPages from "../RackPages.svelte";

  let bands = $state<BandAnswer[] | null>(null);
  let next = $state<NextLine[]>([]);
  let chosen = $state<number[]>([]);
  let where = $state("");
  let who = $state("");
  let refused = $state<Record<number, string>>({});

  async function load(): Promise<void> {
    [bands, next] = await Promise.all([
      askPatiently(() => client.GET("/api/bands")),
      askPatiently(() => client.GET("/api/rack/next")),
    ]);
    chosen = [...pays];
  }
  void load().catch((p: unknown) => notice.fail(p));

  /** The bands that are due and worth it. */
  const pays = $derived(new Set(next.filter((n) => n.do === "sharpen").map((n) => n.band_id)));
  const told = $derived(new Map(next.map((n) => [n.band_id, n.words])));
  const due = $derived(
    (bands ?? [])
      .filter(
        (b) =>
          b.state === "rack" &&
          b.mounted_on === null &&
          !b.damage &&
          (b.edge !== "keen" || pays.has(b.id)),
      )
      .sort((a, b) => b.dullness - a.dullness),
  );
  const out = $derived((bands ?? []).filter((b) => b.state === "out"));
  const sizes = (b: BandAnswer) => `${shop.typeName(b)}, ${shop.say(b.length_mm, "length")}`;

  async function event(band_id: number, body: BandEventInput): Promise<void> {
    const params = { path: { band_id } };
    await ask(client.POST("/api/bands/{band_id}/events", { params, body }));
  }

  async function send(): Promise<void> {
    try {
      for (const id of chosen) await event(id, { kind: "sent_out", detail: where, who });
      notice.say(`${chosen.length} sent out${where ? ` to ${where}` : ""}.`);
      await load();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function back(band: BandAnswer, how: "sharpened" | "refused"): Promise<void> {
    try {
      if (how === "sharpened") {
        const sharpened = { way: "send_out" as const };
        await event(band.id, { kind: "sharpened", detail: "came back", who, sharpened });
      } else {
        const why = refused[band.id] ?? "";
        await event(band.id, { kind: "returned", detail: `refused: ${why}`.trim(), who });
      }
      await load();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  /** The band that is sharpened here, by its card. */
  let here = $state<number | null>(null);
  const hand = $derived(due.find((b) => b.id === here) ?? null);

  async function sharpened(id: number, way: "in_house" | "on_saw"): Promise<void> {
    try {
      await event(id, { kind: "sharpened", detail: "", who, sharpened: { way } });
      here = null;
      await load();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  const pick = (id: number) =>
    (chosen = chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id]);
</script>

<RackPages title="Sharpening" />
{#if bands}
  <section aria-label="To send out">
    <h2>Could be sharpened</h2>
    {#if due.length > 0}
      <p class="soft">
        {pays.size > 0
          ? "Ticked: those it pays to sharpen now."
          : "By what is known of them, it pays to sharpen none of these yet."}
      </p>
    {/if}
    <ul>
      {#each due as b (b.id)}
        <li data-chosen={chosen.includes(b.id)}>
          <label
            ><input type="checkbox" checked={chosen.includes(b.id)} onchange={() => pick(b.id)} />
            <span class="mono">{b.label}</span></label
          >
          <span>{sizes(b)}</span>
          <span class="soft"
            >{b.edge}, {percent(Math.min(b.dullness, 2))} used, sharpened {b.sharpenings}×. {shop.words(
              told.get(b.id) ?? "",
            )}</span
          >
          <Action onclick={() => (here = here === b.id ? null : b.id)}>Sharpen it here</Action>
        </li>
      {:else}
        <li>No band is past keen.</li>
      {/each}
    </ul>
    <div class="form no-print">
      <label>Sent to<input bind:value={where} maxlength="80" autocomplete="off" /></label>
      <Who value={who} onpick={(name) => (who = name)} />
      <Action main disabled={chosen.length === 0} onclick={() => void send()}
        >Send {chosen.length} out</Action
      >
      <Action onclick={() => window.print()}>Print the list</Action>
    </div>
  </section>
  {#if hand}
    <SharpenCard band={hand} onsharpened={(way) => sharpened(hand.id, way)} />
  {/if}
  <section class="no-print" aria-label="Out">
    <h2>Out</h2>
    <ul>
      {#each out as b (b.id)}
        <li class="back">
          <a class="mono" href="#/rack/{b.id}">{b.label}</a>
          <span>{sizes(b)}</span>
          <Action onclick={() => void back(b, "sharpened")}>Came back sharp</Action>
          <label
            ><span class="unseen">Why {b.label} was refused</span><input
              placeholder="refused because …"
              maxlength="200"
              value={refused[b.id] ?? ""}
              oninput={(e) => (refused[b.id] = e.currentTarget.value)}
            /></label
          >
          <Action disabled={!(refused[b.id] ?? "").trim()} onclick={() => void back(b, "refused")}
            >Came back refused</Action
          >
        </li>
      {:else}
        <li>None is out.</li>
      {/each}
    </ul>
  </section>
{:else}
  <p class="soft">Reading the rack …</p>
{/if}

<style>
  section {
    padding-top: var(--s4);
  }
  section + section h2 {
    padding-top: var(--s4);
  }
  li {
    display: grid;
    grid-template-columns: 8rem 1fr 1fr auto;
    gap: var(--s2) var(--s4);
    align-items: center;
    min-height: var(--touch);
    border-top: var(--hair) solid var(--hairline);
  }
  .back {
    display: flex;
    flex-wrap: wrap;
  }
  .back span {
    flex: 1 1 14rem;
  }
  li label {
    display: inline-flex;
    gap: var(--s2);
    align-items: center;
    min-height: var(--touch);
    font-weight: 650;
  }
  .form {
    padding-top: var(--s3);
  }
  .form label {
    display: grid;
    gap: var(--s1);
    font-weight: 600;
  }
  input:not([type]) {
    min-height: var(--touch);
    min-width: 12rem;
    color: var(--ink);
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
  }
  @media print {
    li[data-chosen="false"] {
      display: none;
    }
  }
  @media (max-width: 40em) {
    li {
      grid-template-columns: 1fr;
      padding: var(--s2) 0;
    }
  }
</style>
