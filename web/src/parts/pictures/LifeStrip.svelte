<script lang="ts">
  import type { BandPage } from "../../api/schema";
  import { lifeStrip } from "../../drawings/lifeStrip";
  import { called, choicesOf } from "../../lib/forms";
  import { month, percent } from "../../lib/figures/units";

  const { page }: { page: BandPage } = $props();

  const H = 130;
  let width = $state(900);
  const now = new Date();
  const band = $derived(page.band);
  const alive = $derived(band.state !== "scrapped");
  const strip = $derived(
    lifeStrip(
      new Date(band.arrived_at),
      page.strip.map((r) => ({ at: new Date(r.at), after: r.edge_after_m })),
      page.events.filter((e) => e.kind === "sharpened").map((e) => new Date(e.at)),
      now,
      alive
        ? {
            from: band.edge_equivalent_m,
            left: [page.life.left_90_m, page.life.left_50_m, page.life.left_10_m],
          }
        : null,
      Math.max(width - 70, 200),
      H,
    ),
  );
  const trouble = $derived(page.strip.filter((r) => r.symptoms.length > 0));
  const shown = $derived(choicesOf("event_letter").map((c) => c.key));
  const events = $derived(page.events.filter((e) => shown.includes(e.kind)));
  const words = $derived(
    `Life of ${band.label}: ${band.runs} runs, ${band.sharpenings} sharpenings, ${percent(
      Math.min(band.dullness, 2),
    )} of this edge used.`,
  );
</script>

<figure bind:clientWidth={width}>
  <svg {width} height={H + 54} role="img" aria-label={words}>
    <g transform="translate(60 10)">
      <path class="limit" d="M0 {strip.y(page.life.median_m)}H{width - 70}" />
      <text x="-6" y={strip.y(page.life.median_m) + 5} text-anchor="end">life</text>
      <text x="-6" y={H + 4} text-anchor="end">0</text>
      {#if strip.fan}<path class="fan" d={strip.fan} /><path class="middle" d={strip.middle} />{/if}
      <path class="edge" d={strip.path} />
      <path class="axis" d="M0 {H}H{width - 70}" />
      {#each page.strip as run (run.id)}
        <path class="run" d="M{strip.x(new Date(run.at))} {H}v-7" />
      {/each}
      {#each trouble as run (run.id)}
        <path
          class="trouble"
          d="M{strip.x(new Date(run.at))} {strip.y(run.edge_after_m) - 8}l5 -9h-10z"
        />
      {/each}
      {#each events as event (event.id)}
        {@const x = strip.x(new Date(event.at))}
        <path class="event" d="M{x} 0V{H}" />
        <text class="letter" x={x + 3} y="10">{called("event_letter", event.kind)}</text>
      {/each}
      {#each page.photos as photo (photo.id)}
        <text class="letter" x={strip.x(new Date(photo.at)) + 3} y="28">P</text>
      {/each}
      {#each strip.years as year (year.getTime())}
        <text x={strip.x(year)} y={H + 22} text-anchor="middle">{month(year)}</text>
      {/each}
      {#if strip.fan}<text x={width - 70} y={H + 22} text-anchor="end">what is left</text>{/if}
    </g>
  </svg>
  <figcaption class="soft">
    Height: metres each tooth has rubbed, counted in clean dry oak. Ticks are runs, <b>S</b>
    sharpened,
    <b>C</b> cleaned, <b>!</b> hit, <b>J</b> judged, <b>W</b> weighed, <b>L</b> looked over,
    <b>P</b> photographed; a wedge is a run with trouble. The fan: nine, five and one in ten such edges
    last that far.
  </figcaption>
</figure>

<style>
  svg {
    display: block;
    max-width: 100%;
  }
  .edge {
    fill: none;
    stroke: var(--jade);
    stroke-width: 2.5;
  }
  .fan {
    fill: var(--jade-pale);
  }
  .middle {
    stroke: var(--jade);
    stroke-dasharray: 5 4;
    stroke-width: 2;
  }
  .axis,
  .run {
    stroke: var(--ink);
  }
  .limit {
    stroke: var(--brass);
    stroke-dasharray: 2 4;
    stroke-width: 1.5;
  }
  .event {
    stroke: var(--hairline);
  }
  .trouble {
    fill: var(--brass);
    stroke: var(--ink);
  }
  text {
    fill: var(--ink-soft);
    font-size: 15px;
  }
  .letter {
    fill: var(--ink);
    font-weight: 700;
  }
  figcaption {
    max-width: 52rem;
  }
</style>
