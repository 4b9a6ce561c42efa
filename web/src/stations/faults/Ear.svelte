<script lang="ts">
  import { scaleLinear } from "d3-scale";

  import { ask, client } from "../../api/client";
  import type { BandAnswer, EarAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { HIGH, turningMarks, WIDE } from "../../drawings/checks";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { day, fixed, significant } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import Marks from "../../parts/pictures/Marks.svelte";
  import FaultPages from "./FaultPages.svelte";
  import Hearing from "./Hearing.svelte";

  let bands = $state.raw<BandAnswer[]>([]);
  let saw_id = $state<number | null>(currentJob.draft.saw_id ?? shop.saws[0]?.id ?? null);
  let band_id = $state<number | null>(null);
  let speed = $state<number | null>(null);
  let heard = $state.raw<EarAnswer | null>(null);
  const saw = $derived(shop.saw(saw_id));
  const band = $derived(band_id ?? saw?.mounted_band_id ?? null);
  const most = $derived(Math.max(20, ...(heard?.orders.map((o) => o.level_dB) ?? [])));
  const x = $derived(scaleLinear([0, most], [0, 300]).clamp(true));
  ask(client.GET("/api/bands"))
    .then((found) => (bands = found))
    .catch((p: unknown) => notice.fail(p));
</script>

<FaultPages title="The ear" />
<p class="soft">
  Five seconds of the saw running with no work, held against its last good run at that speed. Only
  levels are kept, never the sound.
</p>
<div class="form">
  <label
    >Saw<select
      value={saw_id}
      onchange={(e) => {
        saw_id = Number(e.currentTarget.value);
        band_id = null;
        heard = null;
      }}
    >
      {#each shop.saws as s (s.id)}<option value={s.id}>{s.saw.name}</option>{/each}
    </select></label
  >
  <label
    >Band on it<select
      value={band ?? ""}
      onchange={(e) => (band_id = Number(e.currentTarget.value) || null)}
    >
      <option value="">–</option>
      {#each bands.filter((b) => b.state === "rack") as b (b.id)}<option value={b.id}
          >{b.label}</option
        >{/each}
    </select></label
  >
  <QuantityField
    label="Band speed, if not as set"
    kind="speed"
    value={speed}
    onvalue={(v) => (speed = v)}
  />
</div>
{#if saw_id !== null && band !== null}
  <Hearing {saw_id} band_id={band} speed_m_s={speed} keeps onheard={(h) => (heard = h)} />
{:else}
  <p>Say which band is on the saw.</p>
{/if}
{#if heard}
  <section aria-label="Heard" aria-live="polite">
    <div class="found">
      <p><strong>{heard.words}</strong></p>
      {#if heard.change?.named}
        <div class="where">
          <Marks marks={turningMarks(heard.change.named)} wide={WIDE} high={HIGH} />
        </div>
      {/if}
    </div>
    <p class="soft">
      {fixed(heard.seconds, 1)} s at {shop.say(heard.speed_m_s, "speed")}{heard.against
        ? `, against ${day(heard.against)}`
        : ""}.
    </p>
    <ul class="rows">
      {#each heard.orders as o (o.source)}
        <li data-heard={o.heard}>
          <span>{o.words}</span>
          <span class="mono">{significant(o.frequency_Hz, 3)} Hz</span>
          <svg viewBox="0 0 300 12" preserveAspectRatio="none" aria-hidden="true">
            <rect class="track" width="300" height="12" />
            <rect width={x(o.level_dB)} height="12" />
          </svg>
          <span class="mono"
            >{o.heard ? `${fixed(o.level_dB, 0)} dB` : "–"}{o.rise_dB !== null && o.heard
              ? `, ${o.rise_dB >= 0 ? "+" : "−"}${fixed(Math.abs(o.rise_dB), 0)}`
              : ""}</span
          >
        </li>
      {/each}
    </ul>
    {#if heard.sign}
      <Action main href="#/faults?from=ear&signs={heard.sign}">Find the cause</Action>
    {/if}
  </section>
{/if}

<style>
  .found {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s5);
    align-items: center;
    justify-content: space-between;
    font-size: var(--text-large);
  }
  .where {
    width: 8rem;
  }
  li {
    grid-template-columns: 15rem 6rem 1fr 9rem;
    min-height: 2.25rem;
  }
  [data-heard="true"] span:first-child {
    font-weight: 650;
  }
  svg {
    width: 100%;
    height: 0.9rem;
  }
  rect {
    fill: var(--jade);
  }
  .track {
    fill: none;
    stroke: var(--hairline);
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 1fr auto;
    }
  }
</style>
