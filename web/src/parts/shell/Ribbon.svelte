<script lang="ts">
  import { router } from "svelte-spa-router";

  import { edge, path, type ToothShape } from "../../drawings/tooth";

  interface Props {
    /** The band in hand, or null for a hairline. */
    band: ToothShape | null;
    /** Its words, for the screen reader. */
    bandWords: string;
    /** `also`: first words of addresses that are a station's too. */
    stations: readonly {
      readonly key: string;
      readonly name: string;
      readonly also?: readonly string[];
      readonly starts?: boolean;
    }[];
  }
  const { band, bandWords, stations }: Props = $props();

  /** Pixels to the millimetre: one scale for every band, so a fine one looks fine. */
  const SCALE = 4.6;
  let height = $state(800);
  let width = $state(390);
  const first = $derived(router.location.split("/")[1] ?? "");
  const two = $derived(router.location.split("/").slice(1, 3).join("/"));
  const here = $derived(
    (
      stations.find((s) => s.also?.includes(two)) ??
      stations.find((s) => s.key === first || s.also?.includes(first))
    )?.key,
  );

  const teeth = $derived.by(() => {
    if (!band) return { across: "", along: "", deep: 0 };
    const deep = Math.max(band.depth * SCALE, 2);
    const long = Math.max(height, width, 1200) / SCALE + 2 * band.pitch;
    const points = edge(band, long);
    const place = (x: number, y: number) => `${x.toFixed(1)} ${y.toFixed(1)}`;
    const across =
      `M${place(0, -20)}L` +
      points.map((p) => place(40 - p.into * SCALE, (p.along - band.pitch) * SCALE)).join("L") +
      `L${place(0, long * SCALE)}Z`;
    const along = path(points, (p) => [(p.along - band.pitch) * SCALE, p.into * SCALE]);
    return { across, along: `${along}L${long * SCALE} 60L-60 60Z`, deep };
  });
</script>

<nav
  aria-label="Stations"
  class="ribbon no-print"
  bind:clientHeight={height}
  bind:clientWidth={width}
>
  <a class="name" href="#/plan" aria-label="Jade Ribbon, to Plan">Jade<br />Ribbon</a>
  <ul>
    {#each stations as station (station.key)}
      <li class:starts={station.starts}>
        <a href="#/{station.key}" aria-current={here === station.key ? "page" : undefined}
          >{station.name}</a
        >
      </li>
    {/each}
  </ul>
  <p class="keys">
    <a href="#/help">Help</a><span aria-hidden="true">/ find</span><span aria-hidden="true"
      >? keys</span
    >
  </p>
  <svg class="down" width="40" {height} aria-hidden="true">
    {#if band}<path d={teeth.across} />{:else}<path class="hair" d="M0.5 0V{height}" />{/if}
  </svg>
  <svg class="over" {width} height="26" aria-hidden="true">
    {#if band}<path d={teeth.along} />{:else}<path class="hair" d="M0 25.5H{width}" />{/if}
  </svg>
  <span class="unseen">{bandWords}</span>
</nav>

<style>
  .ribbon {
    position: fixed;
    inset: 0 auto 0 0;
    width: var(--ribbon-width);
    display: flex;
    flex-direction: column;
    padding-right: 26px;
    color: var(--on-ribbon);
    z-index: 3;
  }
  .ribbon::before {
    content: "";
    position: absolute;
    inset: 0 40px 0 0;
    background: var(--ribbon);
    z-index: -1;
  }
  .down {
    position: absolute;
    right: 0;
    top: 0;
    z-index: -1;
  }
  .over {
    display: none;
  }
  path {
    fill: var(--ribbon);
  }
  .hair {
    stroke: var(--ribbon-edge);
    fill: none;
  }
  .name {
    display: block;
    padding: var(--s5) var(--s4) var(--s4);
    font-weight: 700;
    line-height: 1.15;
    color: var(--on-ribbon);
    text-decoration: none;
  }
  li a {
    display: flex;
    align-items: center;
    min-height: var(--touch);
    padding: 0 var(--s2) 0 var(--s4);
    color: var(--on-ribbon);
    text-decoration: none;
    border-left: 4px solid transparent;
  }
  .starts {
    padding-top: var(--s5);
  }
  li a:hover {
    text-decoration: underline;
    text-underline-offset: 0.3em;
  }
  li a[aria-current="page"] {
    background: var(--ground);
    color: var(--ink);
    font-weight: 700;
    border-left-color: var(--brass);
    margin-right: 10px;
  }
  a:focus-visible {
    outline-color: var(--brass);
    outline-offset: -3px;
  }
  .keys {
    margin-top: auto;
    padding: var(--s4);
    display: grid;
    color: var(--on-ribbon-soft);
    font-size: var(--text-small);
  }
  .keys a {
    display: flex;
    align-items: center;
    min-height: var(--touch);
    color: var(--on-ribbon);
  }
  @media (max-width: 45em) {
    .ribbon {
      inset: auto 0 0 0;
      width: auto;
      padding: 0 0 env(safe-area-inset-bottom);
      flex-direction: row;
    }
    .ribbon::before {
      inset: 0;
    }
    .name,
    .keys,
    .down {
      display: none;
    }
    .over {
      display: block;
      position: absolute;
      bottom: 100%;
      margin-bottom: -5px;
      left: 0;
      z-index: -1;
      overflow: hidden;
    }
    /* The stages first; the rest is a swipe away, and the half of one shows that there is more. */
    ul {
      display: flex;
      flex: 1;
      overflow-x: auto;
      scrollbar-width: none;
    }
    li {
      flex: 1 0 3.6rem;
    }
    .starts {
      padding: 0 0 0 var(--s3);
    }
    li a {
      justify-content: center;
      padding: 0;
      min-height: 3.5rem;
      border-left: 0;
      border-top: 4px solid transparent;
      margin: 0;
    }
    li a[aria-current="page"] {
      border-top-color: var(--brass);
      margin: 0;
    }
  }
</style>
