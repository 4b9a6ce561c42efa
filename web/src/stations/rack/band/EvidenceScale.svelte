<script lang="ts">
  import { scaleLinear } from "d3-scale";

  import type { BandPage, Evidence } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { fixed } from "../../../lib/figures/units";
  import Term from "../../../parts/Term.svelte";

  const { page }: { page: BandPage } = $props();
  const NAMES: Record<Evidence["kind"], { name: string; term: string }> = {
    metres: { name: "its metres", term: "equivalent" },
    judged: { name: "a look at it", term: "edge" },
    feed: { name: "its feed at the same push", term: "feed" },
    weighed: { name: "the hanging weight", term: "push" },
    smoke: { name: "smoke", term: "edge" },
    signs: { name: "signs at late runs", term: "edge" },
  };
  const MOST = 1.3;
  const classes = $derived(
    (shop.reference?.edges ?? []).map((e) => ({ name: e.key, upto: e.upto ?? MOST })),
  );
  let width = $state(600);
  const x = $derived(scaleLinear([0, MOST], [0, Math.max(width - 12, 120)]).clamp(true));
  /** What each kind moved the figure to, from what it was before. */
  const rows = $derived(
    page.evidence.map((e, i) => ({
      ...e,
      before: i === 0 ? null : (page.evidence[i - 1]?.taken ?? null),
    })),
  );
  const places = (v: number) => fixed(v, 2);
</script>

<section aria-label="How keen it is, and by what">
  <h2>How keen, and by what</h2>
  <div class="rows" bind:clientWidth={width}>
    <svg {width} height="26" aria-hidden="true">
      <g transform="translate(6 4)">
        {#each classes as c, i (c.name)}
          {@const from = i === 0 ? 0 : (classes[i - 1]?.upto ?? 0)}
          <text x={(x(from) + x(c.upto)) / 2} y="14" text-anchor="middle">{c.name}</text>
          {#if i > 0}<path class="class" d="M{x(from)} 0V22" />{/if}
        {/each}
      </g>
    </svg>
    <ul>
      {#each rows as e (e.kind)}
        <li data-counted={e.counted}>
          <p>
            <Term key={NAMES[e.kind].term}>{NAMES[e.kind].name}</Term>
            {#if e.says !== null}<span class="mono">{places(e.says)} ± {places(e.sd)}</span>{/if}
            <span class="soft">
              {#if !e.counted}not counted: {e.why}
              {:else if e.why}{e.why}
              {:else if e.before !== null}moved it from {places(e.before)} to {places(e.taken)}
              {/if}
            </span>
          </p>
          <svg {width} height="18" aria-hidden="true">
            <g transform="translate(6 9)">
              <path class="axis" d="M0 0H{x(MOST)}" />
              <path class="limit" d="M{x(page.limit)} -8V8" />
              {#if e.says !== null}
                <path class="spread" d="M{x(Math.max(0, e.says - e.sd))} 0H{x(e.says + e.sd)}" />
                <circle cx={x(e.says)} r="4.5" />
              {:else if e.before !== null}
                <path class="moved" d="M{x(e.before)} 0H{x(e.taken)}" />
                <path class="head" d="M{x(e.taken)} 0l{e.taken < e.before ? 7 : -7} -4.5v9z" />
              {/if}
            </g>
          </svg>
        </li>
      {/each}
      <li class="all">
        <p>
          <strong>Taken together</strong>
          <strong class="mono"
            >{places(page.band.dullness)} ± {places(page.band.dullness_sd)}</strong
          >
        </p>
        <svg {width} height="20" role="img" aria-label="Dullness {places(page.band.dullness)}">
          <g transform="translate(6 10)">
            <path class="axis" d="M0 0H{x(MOST)}" />
            <path class="limit" d="M{x(page.limit)} -8V8" />
            <path
              class="spread"
              d="M{x(Math.max(0, page.band.dullness - page.band.dullness_sd))} 0H{x(
                page.band.dullness + page.band.dullness_sd,
              )}"
            />
            <circle cx={x(page.band.dullness)} r="6" />
          </g>
        </svg>
      </li>
    </ul>
  </div>
  <p class="soft">0 as new, 1 at its limit; bars are one standard deviation either way.</p>
</section>

<style>
  section {
    padding-top: var(--s4);
  }
  svg {
    display: block;
    max-width: 100%;
  }
  li p {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s3);
    align-items: baseline;
  }
  li {
    padding-top: var(--s1);
  }
  .all {
    border-top: var(--hair) solid var(--hairline);
  }
  text {
    fill: var(--ink-soft);
    font-size: 15px;
  }
  .axis,
  .class {
    stroke: var(--hairline);
  }
  .limit {
    stroke: var(--brass);
    stroke-width: 1.5;
    stroke-dasharray: 2 3;
  }
  .spread {
    stroke: var(--steel);
    stroke-width: 5;
    stroke-linecap: round;
  }
  circle {
    fill: var(--ink);
  }
  .all .spread {
    stroke: var(--jade);
    stroke-width: 7;
  }
  .all circle {
    fill: var(--jade);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .moved {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .head {
    fill: var(--ink);
  }
  [data-counted="false"] svg {
    opacity: 0.45;
  }
</style>
