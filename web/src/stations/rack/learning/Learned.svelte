<script lang="ts">
  import { scaleLog } from "d3-scale";

  import { askPatiently, client, wordsOf } from "../../../api/client";
  import type { Learned, LearnedSteel } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { about, fixed, type Said } from "../../../lib/figures/units";
  import LogPages from "../../log/LogPages.svelte";

  let learned = $state<Learned | null>(null);
  let missing = $state<Said>("");
  askPatiently(() => client.GET("/api/rack/learned"))
    .then((found) => (learned = found))
    .catch((problem: unknown) => (missing = wordsOf(problem)));

  const H = 34;
  let width = $state(700);
  const metres = $derived(
    learned
      ? [
          ...learned.lives.map((l) => Math.max(l.metres, 1)),
          ...learned.steels.flatMap((s) => [s.low_m, s.high_m, s.table_m]),
        ]
      : [1, 10],
  );
  const x = $derived(
    scaleLog(
      [Math.min(...metres) * 0.8, Math.max(...metres) * 1.2],
      [0, Math.max(width - 20, 160)],
    ),
  );
  const ticks = $derived(x.ticks(5).filter((t) => /^[125]0*$/.test(String(t))));
  const livesOf = (s: LearnedSteel) =>
    (learned?.lives ?? []).filter((l) => l.steel === s.steel && l.sharpenings === s.sharpenings);
  const named = (s: LearnedSteel) =>
    `${shop.steel(s.steel)}, ${s.sharpenings === 0 ? "new" : `sharpened ${s.sharpenings}×`}`;

  const SIDE = 260;
  const both = $derived((learned?.lives ?? []).filter((l) => l.dull && l.metres > 1));
  const end = $derived(Math.max(...both.flatMap((l) => [l.metres, l.predicted_m]), 10) * 1.2);
  const start = $derived(
    Math.min(...both.flatMap((l) => [l.metres, l.predicted_m]), end / 10) * 0.8,
  );
  const square = $derived(scaleLog([start, end], [0, SIDE]));
</script>

<LogPages title="What this shop’s edges have taught" />
{#if missing}
  <p role="alert">{shop.words(missing)}</p>
{:else if learned && learned.steels.length === 0}
  <p class="soft">
    No edge has been worn out here yet. Log runs, and say how dull a band was when it is sharpened
    or scrapped: each such life narrows what Plan reckons with.
  </p>
{:else if learned}
  <h2>Lives by steel</h2>
  <div class="rows" bind:clientWidth={width}>
    <ul>
      {#each learned.steels as s (s.steel + s.sharpenings)}
        <li>
          <p>
            <strong>{named(s)}</strong>
            <span class="mono">{about(s.median_m, 2)} m</span>
            <span class="soft"
              >eight in ten: {about(s.low_m, 2)} to {about(s.high_m, 2)}; {s.retired} worn out, {s.running}
              running{s.doubted > 0 ? `, ${s.doubted} doubted` : ""}. One more life would narrow it
              by
              {Math.round(100 * s.one_more)} %.</span
            >
          </p>
          <svg
            {width}
            height={H}
            role="img"
            aria-label="{named(s)}: median {about(s.median_m, 2)} m, {livesOf(s)
              .length} lives ended"
          >
            <g transform="translate(8 {H / 2})">
              <path class="axis" d="M0 0H{width - 20}" />
              <path class="range" d="M{x(s.low_m)} 0H{x(s.high_m)}" />
              <path class="table" d="M{x(s.table_m)} -12V12" />
              <path class="median" d="M{x(s.median_m)} -10V10" />
              {#each livesOf(s) as l (l.band_id)}
                <circle
                  cx={x(Math.max(l.metres, 1))}
                  r="5"
                  data-dull={l.dull}
                  data-doubted={l.doubted}
                />
              {/each}
            </g>
          </svg>
        </li>
      {/each}
    </ul>
    <svg {width} height="24" aria-hidden="true">
      {#each ticks as t (t)}
        <text x={8 + x(t)} y="16" text-anchor="middle">{about(t, 1)} m</text>
      {/each}
    </svg>
  </div>
  <p class="soft">
    Dots: lives that ended, filled where the edge was dull; hollow ones only say “still good so
    far”. The bar holds eight in ten of what the median may be; dashed: the table’s.
  </p>
  {#if both.length > 0}
    <h2>Predicted against observed</h2>
    <div class="two">
      <svg
        width={SIDE + 70}
        height={SIDE + 50}
        role="img"
        aria-label="{both.length} lives that ended dull: what the others said of each against what it was"
      >
        <g transform="translate(60 8)">
          <path class="band" d="M0 {SIDE}L{SIDE} 0" />
          <path class="axis" d="M0 {SIDE}H{SIDE}M0 {SIDE}V0" />
          {#each both as l (`${l.band_id} ${l.sharpenings}`)}
            <circle
              cx={square(l.predicted_m)}
              cy={SIDE - square(l.metres)}
              r="5"
              data-dull="true"
              data-doubted={l.doubted}
            />
          {/each}
          <text x={SIDE / 2} y={SIDE + 34} text-anchor="middle">what the others said, m</text>
          <text x="-8" y="12" text-anchor="end">{about(end, 1)}</text>
          <text x="-8" y={SIDE} text-anchor="end">{about(start, 1)}</text>
          <text x={SIDE} y={SIDE + 18} text-anchor="end">{about(end, 1)}</text>
        </g>
      </svg>
      <p class="soft">
        Each dot is an edge worn out here: across, the median that all other lives give; up, what it
        was. One life scatters by half about its median, however much is known.
      </p>
    </div>
  {/if}
  <h2>How hard materials wear</h2>
  {#if learned.materials.length === 0}
    <p class="soft">
      Two lives or more that were spent mostly in one material tell how hard it wears edges here,
      against the table. None has two yet.
    </p>
  {:else}
    <ul>
      {#each learned.materials as m (m.material)}
        <li class="material">
          <a href="#/shop/materials/{m.material}">{m.name}</a>
          <strong class="mono">× {fixed(m.factor, 2)}</strong>
          <span class="soft"
            >eight in ten: {fixed(m.low, 2)} to {fixed(m.high, 2)}; {m.lives} lives. Plan and the rack
            reckon with it.</span
          >
        </li>
      {/each}
    </ul>
  {/if}
{/if}

<style>
  h2 {
    padding-top: var(--s4);
  }
  svg {
    display: block;
    max-width: 100%;
  }
  li p,
  .material {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s3);
    align-items: baseline;
  }
  .material {
    min-height: var(--touch);
    align-items: center;
    border-top: var(--hair) solid var(--hairline);
  }
  .two {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s5);
    align-items: center;
  }
  .two p {
    max-width: 26rem;
  }
  .axis,
  .band {
    stroke: var(--hairline);
    fill: none;
  }
  .band {
    stroke: var(--jade);
    stroke-dasharray: 5 4;
  }
  .range {
    stroke: var(--jade-pale);
    stroke-width: 14;
  }
  .median {
    stroke: var(--jade);
    stroke-width: 3;
  }
  .table {
    stroke: var(--brass);
    stroke-dasharray: 3 3;
    stroke-width: 2;
  }
  circle {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  circle[data-dull="true"] {
    fill: var(--ink);
  }
  circle[data-doubted="true"] {
    fill: var(--brass);
  }
  text {
    fill: var(--ink-soft);
    font-size: 15px;
  }
</style>
