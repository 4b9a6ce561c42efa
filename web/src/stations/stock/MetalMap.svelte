<script lang="ts">
  import { ask, client, Problem } from "../../api/client";
  import type {
    FastenerAnswer,
    FastenerEdit,
    FastenerInput,
    MetalPlanAnswer,
  } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall } from "../../lib/storage";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  interface Props {
    stock_id: number;
    metal: MetalPlanAnswer;
    onchanged: () => void;
  }
  const { stock_id, metal, onchanged }: Props = $props();

  const BLANK = { along_mm: null as number | null, depth_mm: null as number | null };
  let mark = $state({ ...BLANK });
  let face = $state<FastenerInput["face"]>("face");
  let kind = $state<FastenerInput["kind"]>("nail");
  let faults = $state<Record<string, Said>>({});
  const STATES = {
    in: "still in",
    dug_out: "dug out",
    sawn_through: "sawn through",
  } as const;

  async function add(): Promise<void> {
    const { along_mm } = mark;
    faults = along_mm === null ? { along_mm: "is missing; accepted: how far along it lies" } : {};
    if (along_mm === null) return;
    try {
      const body: FastenerInput = { ...mark, along_mm, face, kind, who: recall("who", "") };
      const params = { path: { stock_id } };
      await ask(client.POST("/api/stock/{stock_id}/metal", { params, body }));
      mark = { ...BLANK };
      onchanged();
    } catch (problem) {
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path, f.message]));
      if (known.length === 0) notice.fail(problem);
    }
  }

  async function becomes(of: FastenerAnswer, state: FastenerAnswer["state"]): Promise<void> {
    try {
      const params = { path: { fastener_id: of.id } };
      const body = { version: of.version, state } as FastenerEdit;
      await ask(client.PATCH("/api/metal/{fastener_id}", { params, body }));
      onchanged();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function remove(of: FastenerAnswer): Promise<void> {
    try {
      const params = { path: { fastener_id: of.id } };
      const { change_id } = await ask(client.DELETE("/api/metal/{fastener_id}", { params }));
      onchanged();
      notice.canUndo("The mark is off the map.", change_id, () => Promise.resolve(onchanged()));
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<section aria-label="Metal in it">
  <h2>Metal in it</h2>
  {#if metal.choice}
    {@const c = metal.choice}
    <p><strong>{shop.words(c.words)}</strong></p>
    {#if metal.zones.length > 0}
      <p class="soft">
        Digging out {shop.moneySpan({ low: c.dig_low, high: c.dig_high })}; sawing through
        {shop.moneySpan({ low: c.saw_low, high: c.saw_high })}: minutes and edges are known to a
        factor of two.{#if c.rule}
          By the house rule on metal in old timber.{/if}
      </p>
    {/if}
  {/if}
  {#if metal.zones.length > 0 && !metal.choice}
    <p>Take a band in hand, in Plan: then digging out is weighed against sawing through.</p>
  {/if}
  {#if metal.zones.length > 0}
    <p class="soft">
      Eye protection, no hand in line with the band; teeth can fly. Digging out: clamp the piece.
    </p>
  {/if}
  <ul>
    {#each metal.marks as m (m.id)}
      <li>
        <span class="mono">{shop.say(m.along_mm, "length")}</span>
        <span
          >{m.kind} from the {m.face === "face" ? "marked face" : "back"}, {m.depth_mm === null
            ? "depth unknown"
            : `${shop.say(m.depth_mm, "length")} deep`}</span
        >
        <span class="soft">{STATES[m.state]}</span>
        <span class="acts">
          {#if m.state === "in"}
            <Action onclick={() => void becomes(m, "dug_out")}>Dug out</Action>
            <Action onclick={() => void becomes(m, "sawn_through")}>Sawn through</Action>
          {:else}
            <Action onclick={() => void becomes(m, "in")}>Still in</Action>
          {/if}
          <Action onclick={() => void remove(m)}>Remove</Action>
        </span>
      </li>
    {:else}
      <li class="soft none">None mapped: go over it with a detector, and mark each find here.</li>
    {/each}
  </ul>
  <form
    onsubmit={(e) => {
      e.preventDefault();
      void add();
    }}
  >
    <QuantityField
      label="How far along"
      kind="length"
      value={mark.along_mm}
      error={faults.along_mm ?? ""}
      onvalue={(v) => (mark.along_mm = v)}
    />
    <QuantityField
      label="How deep"
      kind="length"
      help="Empty where unknown: then any depth is as likely."
      value={mark.depth_mm}
      error={faults.depth_mm ?? ""}
      onvalue={(v) => (mark.depth_mm = v)}
    />
    <label
      >What
      <select bind:value={kind}>
        <option value="nail">nail</option><option value="screw">screw</option><option value="stone"
          >stone</option
        >
      </select></label
    >
    <label
      >From
      <select bind:value={face}>
        <option value="face">the marked face</option><option value="back">the back</option>
      </select></label
    >
    <Action type="submit">Mark it</Action>
  </form>
</section>

<style>
  ul {
    border-top: var(--hair) solid var(--hairline);
  }
  li {
    display: grid;
    grid-template-columns: 7rem 1fr 8rem auto;
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .none {
    display: flex;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: start;
    padding: var(--s3) 0;
  }
  label {
    gap: var(--s1);
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 6rem 1fr;
    }
  }
</style>
