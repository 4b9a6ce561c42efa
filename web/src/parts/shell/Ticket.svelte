<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import EdgeTip from "../pictures/EdgeTip.svelte";

  let width = $state(600);
  let height = $state(64);
  const N = 9;
  /** A ticket's outline: a quarter circle taken out of each corner. */
  const outline = $derived(
    `M${N} .5H${width - N}A${N} ${N} 0 0 0 ${width - 0.5} ${N}V${height - N}` +
      `A${N} ${N} 0 0 0 ${width - N} ${height - 0.5}H${N}A${N} ${N} 0 0 0 .5 ${height - N}` +
      `V${N}A${N} ${N} 0 0 0 ${N} .5Z`,
  );
  const material = $derived(shop.materialName(currentJob.draft.material));
  const TENSION: Record<string, string> = { on: " · under tension", slack: " · slack" };
  const tension = $derived(TENSION[shop.saw(currentJob.draft.saw_id)?.tension_state ?? ""] ?? "");
  const saw = $derived(shop.saw(currentJob.draft.saw_id)?.saw.name);
  const size = $derived(
    `${shop.number(currentJob.draft.height_mm, "length")} × ${shop.say(currentJob.draft.length_mm, "long")} × ${currentJob.draft.count}`,
  );
  const band = $derived(currentJob.band);
  const stage = $derived(currentJob.job?.state ?? "draft");
</script>

<header class="ticket" aria-label="Job in hand" bind:clientWidth={width} bind:clientHeight={height}>
  <svg {width} {height} aria-hidden="true" class="no-print"><path d={outline} /></svg>
  <a class="part job" href="#/jobs" title="All jobs">
    <span class="label">{currentJob.id === null ? "draft" : `job ${currentJob.id}`}</span>
    <strong>{currentJob.name}</strong>
  </a>
  <a class="part wide" href="#/plan">
    <span class="label">work</span>
    <strong>{material} · {size}</strong>
  </a>
  <a class="part" href="#/plan">
    <span class="label">saw{tension}</span>
    <strong>{saw ?? "none chosen"}</strong>
  </a>
  <a class="part whole" href={band?.band_id ? `#/rack/${band.band_id}` : "#/rack"}>
    <span class="label">band</span>
    <strong>{band ? band.label : (currentJob.job?.band_label ?? "none yet")}</strong>
  </a>
  <span class="part whole">
    <span class="label">edge</span>
    <strong
      >{#if band}<EdgeTip edge={band.edge} radius_um={band.tip_radius_um} />{:else}–{/if}</strong
    >
  </span>
  <span class="part whole">
    <span class="label">state</span>
    <strong>{stage}{currentJob.job && currentJob.changed ? ", edited" : ""}</strong>
  </span>
</header>

<style>
  .ticket {
    position: relative;
    display: flex;
    align-items: stretch;
    min-height: 4rem;
    padding: 0 var(--s3);
  }
  svg {
    position: absolute;
    inset: 0;
    z-index: -1;
  }
  .ticket > svg path {
    fill: var(--paper);
    stroke: var(--hairline);
  }
  .part {
    display: grid;
    align-content: center;
    padding: var(--s2) var(--s3);
    color: inherit;
    text-decoration: none;
    min-width: 0;
    flex: 0 1 auto;
  }
  .part + .part {
    border-left: 2px dotted var(--hairline);
  }
  .wide {
    flex: 1 1 auto;
  }
  .whole {
    flex: none;
  }
  a.part:hover strong {
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  .label {
    color: var(--ink-soft);
    font-size: var(--text-small);
    white-space: nowrap;
  }
  strong {
    font-weight: 650;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  @media (max-width: 62.5em) {
    .ticket {
      flex-wrap: wrap;
      padding-block: var(--s1);
    }
    .part + .part {
      border-left: 0;
    }
    .part {
      padding: var(--s1) var(--s2);
    }
    .wide {
      flex-basis: 45%;
    }
  }
</style>
