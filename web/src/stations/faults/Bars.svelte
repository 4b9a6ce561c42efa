<script lang="ts">
  import { scaleLinear } from "d3-scale";

  import type { CauseNow } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { fixed } from "../../lib/figures/units";

  interface Props {
    causes: readonly CauseNow[];
    /** Chance that it is none of the listed. */
    none: number;
  }
  const { causes, none }: Props = $props();

  const WIDE = 300;
  const x = scaleLinear([0, 1], [0, WIDE]);
  let open = $state<string | null>(null);
  const shownKey = $derived(open ?? causes[0]?.key ?? null);

  function strength(times: number): string {
    const by = times >= 1 ? times : 1 / times;
    return `×${by >= 10 ? fixed(by, 0) : fixed(by, 1)}`;
  }
</script>

<ol>
  {#each causes as cause (cause.key)}
    <li>
      <button
        type="button"
        aria-expanded={shownKey === cause.key}
        onclick={() => (open = cause.key)}
      >
        <span class="first">
          <span class="name" data-harm={cause.harm}>{cause.name}</span>
          <span class="words">{cause.words}</span>
        </span>
        <svg viewBox="0 0 {WIDE} 16" preserveAspectRatio="none" aria-hidden="true">
          <rect class="track" width={WIDE} height="16" />
          <rect class="bar" data-harm={cause.harm} width={x(cause.chance)} height="16" />
          <line class="was" x1={x(cause.before)} x2={x(cause.before)} y1="0" y2="16" />
        </svg>
        <span class="mono share"
          >{shop.chance(cause.chance)}<span class="unseen">, was {shop.chance(cause.before)}</span
          ></span
        >
      </button>
      {#if shownKey === cause.key}
        <div class="why">
          {#if cause.spoke_for.length > 0}
            <h3>For it</h3>
            <ul>
              {#each cause.spoke_for as s (s.kind + s.key)}
                <li><span>{shop.words(s.words)}</span> <b class="mono">{strength(s.times)}</b></li>
              {/each}
            </ul>
          {/if}
          {#if cause.against.length > 0}
            <h3>Against</h3>
            <ul>
              {#each cause.against as s (s.kind + s.key)}
                <li>
                  <span>{shop.words(s.words)}</span>
                  <b class="mono">÷{strength(s.times).slice(1)}</b>
                </li>
              {/each}
            </ul>
          {/if}
          {#if cause.found_here > 0}
            <p class="soft">
              Found here {cause.found_here === 1 ? "once" : `${cause.found_here} times`}.
            </p>
          {/if}
        </div>
      {/if}
    </li>
  {/each}
</ol>
<p class="soft">
  None of the listed: {shop.chance(none)}. A short mark shows where each stood before the last
  answer. The table’s chances are a mechanic’s judgement, good to a factor of 1.5.
</p>

<style>
  ol > li {
    border-top: var(--hair) solid var(--hairline);
  }
  button {
    display: grid;
    grid-template-columns: 1fr 4.5rem;
    gap: 0 var(--s3);
    width: 100%;
    padding: var(--s2) 0;
    text-align: left;
  }
  .name {
    font-weight: 650;
    font-size: var(--text-large);
  }
  /* One axis for all bars: whatever the words are. */
  .first {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 var(--s3);
    align-items: baseline;
  }
  svg {
    width: 100%;
    height: 1.1rem;
  }
  .track {
    fill: none;
    stroke: var(--hairline);
  }
  .bar {
    fill: var(--jade);
    transition: width var(--slow);
  }
  .bar[data-harm="stop"] {
    fill: var(--vermilion);
  }
  .was {
    stroke: var(--brass);
    stroke-width: 3;
  }
  .share {
    text-align: right;
  }
  .why {
    padding: 0 0 var(--s3) var(--s3);
    border-left: var(--rule) solid var(--hairline);
  }
  .why li {
    display: flex;
    justify-content: space-between;
    gap: var(--s3);
  }
  h3 {
    color: var(--ink-soft);
  }
</style>
