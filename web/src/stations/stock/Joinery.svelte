<script lang="ts">
  import { ask, client, wordsOf } from "../../api/client";
  import type { CircleJig, Ring } from "../../api/schema";
  import { ringPaths } from "../../drawings/ring";
  import { Latest } from "../../lib/sending/latest";
  import { shop } from "../../lib/shop.svelte";
  import { fixed } from "../../lib/figures/units";
  import { recall, remember } from "../../lib/storage";
  import { currentJob } from "../../lib/currentJob.svelte";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import HeldBack from "../../parts/HeldBack.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  const RING = {
    segments: 8,
    radius_mm: 200,
    joint_width_mm: 40,
    gap_allowed_mm: 0.3,
    face_error_deg: 0,
    error_doubt_deg: 0.05,
  };
  const CIRCLE = {
    radius_mm: 250,
    drift_deg: 0,
    pivot_behind_tooth_line_mm: 0,
    blank_mm: 540,
    table_reach_mm: 250,
  };
  let ringOf = $state.raw(recall("joinery.ring", RING));
  let circleOf = $state.raw(recall("joinery.circle", CIRCLE));
  let sawId = $state(currentJob.draft.saw_id ?? shop.saws[0]?.id ?? 0);
  let ring = $state.raw<Ring | null>(null);
  let circle = $state.raw<CircleJig | null>(null);
  let ringFault = $state<Said>("");
  let circleFault = $state<Said>("");
  const rings = new Latest();
  const circles = new Latest();
  const kerf = $derived(currentJob.band?.kerf_mm ?? shop.reference?.losses.kerf_mm ?? 0);
  const saw = $derived(shop.saw(sawId)?.saw);
  const CLOSES = {
    yes: "It closes.",
    no: "It does not close: set the angle nearer.",
    cannot_tell: "Cannot tell: read the angle more closely.",
  } as const;

  // What is typed is asked of the server, which works out both.
  $effect(() => {
    remember("joinery.ring", ringOf);
    const body = { ...ringOf, kerf_mm: kerf };
    rings
      .take(() => ask(client.POST("/api/ring", { body })))
      .then((found) => {
        if (found) [ring, ringFault] = [found, ""];
      })
      .catch((p: unknown) => ([ring, ringFault] = [null, wordsOf(p)]));
  });
  $effect(() => {
    remember("joinery.circle", circleOf);
    if (!sawId) return;
    const body = { ...circleOf, saw_id: sawId };
    circles
      .take(() => ask(client.POST("/api/circle", { body })))
      .then((found) => {
        if (found) [circle, circleFault] = [found, ""];
      })
      .catch((p: unknown) => ([circle, circleFault] = [null, wordsOf(p)]));
  });

  const wedges = $derived(ringPaths(ringOf.segments, ringOf.radius_mm, ringOf.joint_width_mm));
  const room = $derived(1.15 * ringOf.radius_mm);
  /** Where the picture of the circle reaches: the column on the left, the pin's side on the right. */
  const throat = $derived(saw?.throat_mm ?? 400);
  const reach = $derived(Math.max(circle?.corner_mm ?? 0, circleOf.radius_mm) * 1.08);
</script>

<h1>Rings and circles</h1>
<HeldBack />
<div class="two">
  <section aria-label="A ring of segments">
    <h2>A ring of segments</h2>
    <div class="fields">
      <QuantityField
        label="Segments"
        kind="plain"
        value={ringOf.segments}
        onvalue={(v) => (ringOf = { ...ringOf, segments: Math.round(v ?? 0) })}
      />
      <QuantityField
        label="Radius to the middle of its outer faces"
        kind="length"
        value={ringOf.radius_mm}
        onvalue={(v) => (ringOf = { ...ringOf, radius_mm: v ?? 0 })}
      />
      <QuantityField
        label="Width of the joint"
        kind="length"
        value={ringOf.joint_width_mm}
        onvalue={(v) => (ringOf = { ...ringOf, joint_width_mm: v ?? 0 })}
      />
      <QuantityField
        label="Gap allowed where it closes"
        kind="thin"
        value={ringOf.gap_allowed_mm}
        onvalue={(v) => (ringOf = { ...ringOf, gap_allowed_mm: v ?? 0 })}
      />
      <QuantityField
        label="Each face is off by, degrees"
        kind="plain"
        value={ringOf.face_error_deg}
        onvalue={(v) => (ringOf = { ...ringOf, face_error_deg: v ?? 0 })}
      />
      <QuantityField
        label="Read to, degrees"
        kind="plain"
        help="A protractor tells a quarter of a degree, a gauge with a vernier a twelfth."
        value={ringOf.error_doubt_deg}
        onvalue={(v) => (ringOf = { ...ringOf, error_doubt_deg: v ?? 0 })}
      />
    </div>
    {#if ringFault}<p class="fault" role="alert">{shop.words(ringFault)}</p>{/if}
    {#if ring}
      <p class="answer" data-closes={ring.closes} role="status">
        <strong>{CLOSES[ring.closes]}</strong>
        Each face at <span class="mono">{fixed(ring.face_deg, 3)}°</span>, right to
        <span class="mono">{fixed(ring.error_allowed_deg, 3)}°</span>; off as it is, the ring is
        open by <span class="mono">{shop.say(Math.abs(ring.closing_gap_mm), "thin")}</span>.
      </p>
      <p>
        A segment is <span class="mono">{shop.say(ring.outer_mm, "length")}</span> long outside,
        <span class="mono">{shop.say(ring.inner_mm, "length")}</span> inside; all take
        <span class="mono">{shop.say(ring.stock_mm, "long")}</span> of strip, turned over each time.
      </p>
      <svg viewBox="{-room} {-room} {2 * room} {2 * room}" role="img" aria-label="The ring">
        {#each wedges as wedge, i (i)}<path class="wedge" d={wedge} />{/each}
      </svg>
    {/if}
  </section>
  <section aria-label="A circle about a pin">
    <h2>A circle about a pin</h2>
    <div class="fields">
      <label
        >Saw
        <select bind:value={sawId}>
          {#each shop.saws as s (s.id)}<option value={s.id}>{s.saw.name}</option>{/each}
        </select></label
      >
      <QuantityField
        label="Radius"
        kind="length"
        value={circleOf.radius_mm}
        onvalue={(v) => (circleOf = { ...circleOf, radius_mm: v ?? 0 })}
      />
      <QuantityField
        label="Side of the square blank"
        kind="length"
        value={circleOf.blank_mm}
        onvalue={(v) => (circleOf = { ...circleOf, blank_mm: v ?? 0 })}
      />
      <QuantityField
        label="Drift toward the pin, degrees"
        kind="plain"
        help="From Drift, on Set up; under 0 where the band pulls away from the pin."
        value={circleOf.drift_deg}
        onvalue={(v) => (circleOf = { ...circleOf, drift_deg: v ?? 0 })}
      />
      <QuantityField
        label="The pin is behind the tooth line by"
        kind="thin"
        value={circleOf.pivot_behind_tooth_line_mm}
        onvalue={(v) => (circleOf = { ...circleOf, pivot_behind_tooth_line_mm: v ?? 0 })}
      />
      <QuantityField
        label="Table beside the band, on the pin's side"
        kind="length"
        value={circleOf.table_reach_mm}
        onvalue={(v) => (circleOf = { ...circleOf, table_reach_mm: v ?? 0 })}
      />
    </div>
    {#if circleFault}<p class="fault" role="alert">{shop.words(circleFault)}</p>{/if}
    {#if circle}
      <p class="answer" data-closes={circle.clears ? "yes" : "no"} role="status">
        <strong
          >{circle.clears
            ? "The blank clears the column."
            : "Its corners would strike the column: saw them off first."}</strong
        >
        They swing <span class="mono">{shop.say(circle.throat_needed_mm, "length")}</span> past the
        band; the throat is <span class="mono">{shop.say(throat, "length")}</span>.
      </p>
      <p>
        Pin <span class="mono">{shop.say(circleOf.radius_mm, "length")}</span> beside the teeth and
        <span class="mono">{shop.say(circle.pin.right_behind_mm, "thin")}</span> behind their line.
        Where it is now the circle comes to
        <span class="mono">{shop.say(circle.pin.cut_radius_mm, "length")}</span>, steered
        <span class="mono">{fixed(circle.pin.steer_deg, 2)}°</span> off the band's own line.
        {#if circle.extension_mm > 0}
          The table must reach <span class="mono">{shop.say(circle.extension_mm, "length")}</span> farther.
        {/if}
        {#if circle.entry_mm > 0}
          Go in straight for <span class="mono">{shop.say(circle.entry_mm, "length")}</span>, then
          turn.
        {/if}
      </p>
      <svg
        viewBox="{-throat - 40} {-reach} {throat + 40 + circleOf.radius_mm + reach} {2 * reach}"
        role="img"
        aria-label="The jig from above: column, band, pin, the circle and how far its corners swing"
      >
        <rect class="column" x={-throat - 40} y={-90} width="40" height="180" />
        <rect
          class="table"
          x={-throat * 0.6}
          y={-reach * 0.7}
          width={throat * 0.6 + circleOf.table_reach_mm}
          height={1.4 * reach}
        />
        <circle class="swing" cx={circleOf.radius_mm} r={circle.corner_mm} />
        <rect
          class="wedge"
          x={circleOf.radius_mm - circleOf.blank_mm / 2}
          y={-circleOf.blank_mm / 2}
          width={circleOf.blank_mm}
          height={circleOf.blank_mm}
        />
        <circle class="cut" cx={circleOf.radius_mm} r={circleOf.radius_mm} />
        <circle class="pin" cx={circleOf.radius_mm} cy={circle.pin.right_behind_mm} r="7" />
        <path class="band" d="M0 0v24" />
        <path class="line" d="M0 0H{circleOf.radius_mm}" />
        <text style:font-size="{reach / 7}px" x={-throat - 30} y={-100}>column</text>
        <text style:font-size="{reach / 7}px" x="12" y={reach / 8}>band</text>
        <text
          style:font-size="{reach / 7}px"
          x={circleOf.radius_mm + 14}
          y={circle.pin.right_behind_mm - 12}>pin</text
        >
      </svg>
      <p class="soft">
        Clamp the jig; both hands behind the teeth; no backing out of a round cut with the saw
        running.
      </p>
    {/if}
  </section>
</div>
<Action href="#/stock">Stock</Action>

<style>
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
    gap: var(--s6);
    padding: var(--s3) 0;
  }
  .fields {
    grid-template-columns: repeat(auto-fill, minmax(min(13rem, 100%), 1fr));
    padding: var(--s3) 0;
    align-items: start;
  }
  label {
    gap: var(--s1);
  }
  select {
    font-size: var(--text-large);
  }
  .answer {
    padding: var(--s2) var(--s4);
    border-left: var(--s2) solid var(--ink-soft);
    background: var(--paper);
  }
  .answer[data-closes="yes"] {
    border-left-color: var(--jade);
  }
  .answer[data-closes="no"] {
    border-left-color: var(--vermilion);
  }
  svg {
    width: 100%;
    max-height: 24rem;
  }
  .wedge {
    fill: var(--wood);
    stroke: var(--ink);
    vector-effect: non-scaling-stroke;
  }
  .column {
    fill: var(--steel);
  }
  .table {
    fill: var(--paper);
    stroke: var(--hairline);
  }
  .swing {
    fill: none;
    stroke: var(--vermilion);
    stroke-dasharray: 8 6;
  }
  .cut {
    fill: var(--wood-sawn);
    stroke: var(--jade);
    stroke-width: 3;
  }
  .pin {
    fill: var(--ink);
  }
  .band {
    stroke: var(--jade-deep);
    stroke-width: 6;
  }
  .line {
    stroke: var(--ink-soft);
  }
  text {
    fill: var(--ink);
    font-family: var(--font);
  }
</style>
