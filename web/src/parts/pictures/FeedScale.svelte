<script lang="ts">
  import type { Between, FeedWindow } from "../../api/schema";
  import { cleanZone, feedAxis, feedTicks, placeMarks, softPath } from "../../drawings/feedScale";
  import { shop } from "../../lib/shop.svelte";
  import { unitSize } from "../../lib/figures/units";

  interface Props {
    window: FeedWindow;
    /** Feed from which a cut under the floor is hot instead of shut, m/min. */
    hot_from: number;
    /** Words of each limit, from the core. */
    words: Readonly<Record<string, string>>;
    /** Where eight draws in ten put floor, ceiling and each limit. */
    soft: {
      floor: Between;
      ceiling: Between;
      limits: Readonly<Record<string, Between>>;
    };
    /** Feed at the handle, m/min. */
    feed: number;
    /** Moves the handle; without it the scale only shows where the feed stands. */
    onfeed?: (feed: number) => void;
  }
  const { window, hot_from, words, soft, feed, onfeed }: Props = $props();

  let width = $state(1000);
  const PAD = 12;
  const span = $derived(Math.max(width - 2 * PAD, 200));
  const axis = $derived(feedAxis(window.floor_m_min, Object.values(window.limits_m_min), span));
  const marks = $derived(
    placeMarks(
      [
        ...Object.entries(window.limits_m_min)
          .filter(([, at]) => at <= (axis.domain()[1] ?? 0))
          .map(([key, at]) => ({
            key,
            feed: at,
            label: words[key] ?? key,
            binding: key === window.binding,
          })),
        { key: "floor", feed: window.floor_m_min, label: "rubs below", binding: false },
      ],
      axis,
      span,
    ),
  );
  const rows = $derived(Math.max(...marks.map((m) => m.row)) + 1);
  const TOP = $derived(12 + rows * 22);
  const ticks = $derived(feedTicks(axis, unitSize("feed", shop.units)));
  const x = $derived(axis(feed));
  let dragging = $state(false);
  let svg = $state<SVGSVGElement>();

  function at(clientX: number): number {
    const box = svg?.getBoundingClientRect();
    if (!box) return feed;
    return axis.invert(Math.min(Math.max(clientX - box.left - PAD, 0), span));
  }

  function drag(event: PointerEvent): void {
    if (dragging) onfeed?.(at(event.clientX));
  }

  function grab(event: PointerEvent): void {
    if (!onfeed) return;
    dragging = true;
    svg?.setPointerCapture(event.pointerId);
    onfeed(at(event.clientX));
  }

  /** A handle that moves is a slider; one that does not is a picture of where the feed stands. */
  const handle = $derived(
    onfeed
      ? {
          role: "slider",
          tabindex: 0,
          "aria-label": "Feed",
          "aria-valuemin": axis.domain()[0],
          "aria-valuemax": axis.domain()[1],
          "aria-valuenow": feed,
          "aria-valuetext": shop.say(feed, "feed"),
        }
      : { role: "img", "aria-label": `The feed: ${shop.say(feed, "feed")}` },
  );

  function nudge(event: KeyboardEvent): void {
    const step = {
      ArrowRight: 1.05,
      ArrowUp: 1.05,
      ArrowLeft: 1 / 1.05,
      ArrowDown: 1 / 1.05,
      PageUp: 1.25,
      PageDown: 0.8,
    }[event.key];
    const [low = 0.01, high = 100] = axis.domain();
    let next = step ? feed * step : feed;
    if (event.key === "Home") next = window.floor_m_min;
    else if (event.key === "End") next = window.ceiling_m_min;
    else if (!step) return;
    event.preventDefault();
    onfeed?.(Math.min(Math.max(next, low), high));
  }
</script>

<div class="scale" bind:clientWidth={width}>
  <!-- The slider is the handle; the picture around it only takes the pointer. -->
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <svg
    bind:this={svg}
    {width}
    height={TOP + 62}
    onpointerdown={grab}
    onpointermove={drag}
    onpointerup={() => (dragging = false)}
    onpointercancel={() => (dragging = false)}
  >
    <defs>
      <pattern
        id="rubs"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V7" class="hatch" />
      </pattern>
    </defs>
    <g transform="translate({PAD} 0)">
      <rect
        class="zone"
        fill="url(#rubs)"
        y={TOP}
        height="15"
        width={Math.max(axis(hot_from), 0)}
      />
      <rect
        class="zone hot"
        x={axis(hot_from)}
        y={TOP}
        height="15"
        width={Math.max(
          Math.min(axis(window.floor_m_min), axis(window.ceiling_m_min)) - axis(hot_from),
          0,
        )}
      />
      {#if window.state === "open"}
        <path class="open" d={softPath(cleanZone(axis, soft.floor, soft.ceiling), TOP, 15)} />
      {/if}
      <path class="axis" d="M0 {TOP + 15}H{span}" />
      {#each ticks as tick (tick.label)}
        <path class="axis" d="M{axis(tick.feed)} {TOP + 15}v6" />
        <text class="mono" x={axis(tick.feed)} y={TOP + 38} text-anchor="middle">{tick.label}</text>
      {/each}
      <text class="soft" x={span} y={TOP + 58} text-anchor="end">feed, {shop.unit("feed")}</text>
      {#each marks as mark (mark.key)}
        {@const range = mark.key === "floor" ? soft.floor : soft.limits[mark.key]}
        {#if range}
          <path
            class="whisker"
            data-binding={mark.binding}
            d="M{axis(range.low)} {TOP - 1 - mark.row * 22}H{axis(range.high)}"
          />
        {/if}
        <path
          class="line"
          data-binding={mark.binding}
          d="M{mark.x} {TOP - 18 - mark.row * 22}V{TOP + 15}"
        />
      {/each}
      {#each marks as mark (mark.key)}
        {@const y = TOP - 6 - mark.row * 22}
        <g class="mark" data-binding={mark.binding}>
          <text x={mark.x + (mark.anchor === "start" ? 5 : -5)} {y} text-anchor={mark.anchor}
            >{mark.label}</text
          >
        </g>
      {/each}
      <g class="handle" {...handle} onkeydown={nudge} transform="translate({x} {TOP})">
        <rect x="-22" y="-22" width="44" height="58" fill="transparent" />
        <path d="M-9 -13H9L0 -1ZM-9 28H9L0 16ZM-1.5 -2h3v20h-3z" />
      </g>
    </g>
  </svg>
</div>

<style>
  svg {
    display: block;
    touch-action: pan-y;
    cursor: ew-resize;
    max-width: 100%;
  }
  .hatch {
    stroke: var(--hairline);
    stroke-width: 2;
  }
  .hot {
    fill: var(--wood);
  }
  .open {
    fill: var(--jade);
  }
  .axis {
    stroke: var(--ink);
    fill: none;
  }
  text {
    fill: var(--ink);
    font-size: 15px;
  }
  .soft {
    fill: var(--ink-soft);
  }
  .mono {
    font-family: var(--mono);
  }
  .line {
    stroke: var(--ink-soft);
  }
  .whisker {
    stroke: var(--hairline);
    stroke-width: 3;
    stroke-linecap: round;
  }
  .whisker[data-binding="true"] {
    stroke: var(--brass);
  }
  .mark text {
    stroke: var(--ground);
    stroke-width: 5;
    paint-order: stroke;
  }
  .line[data-binding="true"] {
    stroke: var(--brass-text);
    stroke-width: 2.5;
  }
  .mark[data-binding="true"] text {
    fill: var(--brass-text);
    font-weight: 700;
  }
  .handle path {
    fill: var(--brass);
    stroke: var(--ground);
    stroke-width: 0.75;
  }
  .handle:focus-visible {
    outline: 3px solid var(--focus);
  }
</style>
