<script lang="ts">
  import type { BandFigures } from "../../api/schema";
  import { edge, fill, gulletOutline, path, type ToothShape } from "../../drawings/tooth";
  import { shop } from "../../lib/shop.svelte";
  import { significant } from "../../lib/figures/units";

  interface Props {
    band: BandFigures;
    height_mm: number;
    guard_mm: number;
    /** Share of a gullet filled as it leaves the work. */
    gullet_fill: number;
    fill_limit_reached: boolean;
    teeth_in_cut: number;
    material: string;
    metal: boolean;
    /** Wood and panels are drawn with grain. */
    grained: boolean;
    /** Cross-section of the stock in the cut. */
    shape?: "flat" | "round" | "tube";
    wall_mm?: number | null;
    /** A log thicker than the face being sawn stands with its pith beside the band. */
    log_mm?: number | null;
  }
  const {
    band,
    height_mm,
    guard_mm,
    gullet_fill,
    fill_limit_reached,
    teeth_in_cut,
    material,
    metal,
    grained,
    shape = "flat",
    wall_mm = null,
    log_mm = null,
  }: Props = $props();

  const W = 560;
  const WORK_TOP = 76;
  const WORK = 236;
  const H = WORK_TOP + WORK + 44;
  const TIP_X = 268;
  /** A band wider than this on the page is broken off, so that the words keep their place. */
  const WIDEST = 104;
  /** Teeth are drawn large enough to read: at least so many pixels to the pitch. */
  const LEAST_PITCH = 30;

  const workScale = $derived(WORK / height_mm);
  /** Rounding of the drawn stock: a log or bar is round, all else square. */
  const rx = $derived(shape === "round" ? WORK / 2 : 0);
  const log = $derived(shape === "round" && log_mm && log_mm > height_mm ? log_mm : null);
  /** How far the pith of a log stands from the chord that is the sawn face. */
  const pith = $derived(log ? (Math.sqrt(log ** 2 - height_mm ** 2) / 2) * workScale : 0);
  const wallPx = $derived(
    shape === "tube" && wall_mm ? Math.min(wall_mm * workScale, WORK / 2) : 0,
  );
  const grow = $derived(
    Math.max(1, Math.ceil((LEAST_PITCH / (band.pitch_mm * workScale)) * 2) / 2),
  );
  const scale = $derived(workScale * grow);
  const tooth = $derived<ToothShape>({
    form: band.form,
    pitch: band.pitch_mm * scale,
    depth: band.gullet_depth_mm * scale,
    hookDeg: band.hook_deg,
  });
  const bodyPx = $derived(Math.min(band.width_mm * scale, WIDEST));
  const cut = $derived(band.width_mm * scale > WIDEST);
  const start = $derived(tooth.pitch * -1);
  const outline = $derived(gulletOutline(tooth));
  const bandPath = $derived(
    path(edge(tooth, H + 2 * tooth.pitch), (p) => [TIP_X + p.into, p.along + start]) +
      `L${TIP_X + bodyPx} ${H + 60}L${TIP_X + bodyPx} -60Z`,
  );
  /** Each gullet as full as it will be at its place on the way down through the work. */
  const chips = $derived.by(() => {
    const found: string[] = [];
    for (let top = start; top < H; top += tooth.pitch) {
      const middle = top + tooth.pitch / 2;
      const share = (middle - WORK_TOP) / WORK;
      if (share <= 0 || share > 1 + tooth.pitch / WORK) continue;
      const filled = fill(outline, Math.min(share, 1) * Math.min(gullet_fill, 1));
      found.push(path(filled, (p) => [TIP_X + p.into, p.along + top], true));
    }
    return found;
  });
  const guardPx = $derived(Math.min(Math.max(guard_mm * workScale, 10), 60));
  const grain = Array.from({ length: 11 }, (_, i) => WORK_TOP + 14 + i * 21);
  const scaleWords = $derived(
    grow > 1
      ? `work to scale; band and teeth drawn ${significant(grow, 2)} times larger`
      : "work and band to one scale",
  );
</script>

<figure>
  <svg
    viewBox="0 0 {W} {H}"
    role="img"
    aria-label="The band in {material}: {significant(
      teeth_in_cut,
      3,
    )} teeth in the work, gullets {significant(
      100 * gullet_fill,
      2,
    )} percent filled where they leave it; {scaleWords}"
  >
    <defs>
      <clipPath id="frame"><rect width={W} height={H} /></clipPath>
      <clipPath id="sawn"><rect y={WORK_TOP} width={W} height={WORK} /></clipPath>
    </defs>
    <g clip-path="url(#frame)">
      {#if log}
        <g clip-path="url(#sawn)">
          <circle
            class="work"
            data-metal={metal}
            cx={TIP_X - pith}
            cy={WORK_TOP + WORK / 2}
            r={(log / 2) * workScale}
          />
        </g>
      {/if}
      <rect
        class="work"
        class:unseen={log !== null}
        data-metal={metal}
        x={shape === "round" ? TIP_X - WORK / 2 : 16}
        y={WORK_TOP}
        width={shape === "round" ? WORK : TIP_X - 16}
        height={WORK}
        {rx}
      />
      <rect
        class="work sawn"
        data-metal={metal}
        x={TIP_X}
        y={WORK_TOP}
        width={shape === "round" ? 0 : W - TIP_X - 30}
        height={WORK}
      />
      {#if grained && shape === "flat"}
        {#each grain as y, i (y)}
          <path
            class="grain"
            d="M16 {y}c80 {i % 2 ? 5 : -4} 160 {i % 3 ? -4 : 4} {TIP_X - 16} 1M{TIP_X} {y}c70 {i % 2
              ? -4
              : 4} 150 4 {W - TIP_X - 30} 0"
          />
        {/each}
      {/if}
      {#if wallPx > 0}
        <rect
          class="hollow"
          x={16 + wallPx}
          y={WORK_TOP + wallPx}
          width={W - 46 - 2 * wallPx}
          height={Math.max(WORK - 2 * wallPx, 0)}
        />
      {/if}
      <path class="band" d={bandPath} />
      {#each chips as d, i (i)}<path class="chip" {d} />{/each}
      {#if cut}<path
          class="cut"
          d="M{TIP_X +
            bodyPx} -10 l6 30 -12 30 12 30 -12 30 12 30 -12 30 12 30 -12 30 12 30 -12 30 12 30 -12 30 12 30 -12 30 12 40"
        />{/if}
      <rect class="table" x="0" y={WORK_TOP + WORK} width={TIP_X - 12} height="13" />
      <rect
        class="table"
        x={TIP_X + bodyPx + 10}
        y={WORK_TOP + WORK}
        width={W - TIP_X - bodyPx}
        height="13"
      />
      <rect class="guide" x={TIP_X - 24} y="0" width="10" height={WORK_TOP - guardPx} />
      <g class="dim">
        <path d="M74 {WORK_TOP}V{WORK_TOP + WORK}M66 {WORK_TOP}h16M66 {WORK_TOP + WORK}h16" />
        <text x="66" y={WORK_TOP + WORK / 2} text-anchor="end"
          >{shop.number(height_mm, "length")}</text
        >
        <path
          d="M{TIP_X - 44} {WORK_TOP - guardPx}V{WORK_TOP}m-12 0h24M{TIP_X - 56} {WORK_TOP -
            guardPx}h24"
        />
        <text x={TIP_X - 62} y={WORK_TOP - guardPx / 2 + 6} text-anchor="end"
          >guard {shop.number(guard_mm, "length")}</text
        >
        <path d="M24 {WORK_TOP + WORK - 28}h56m-9 -5 l9 5 -9 5" />
        <text x="24" y={WORK_TOP + WORK - 38}>feed</text>
      </g>
      <g class="say">
        <path
          d="M{TIP_X + bodyPx + 4} {WORK_TOP + 66}L{TIP_X + bodyPx + 36} {WORK_TOP + 50}M{TIP_X +
            bodyPx +
            4} {WORK_TOP + 206}L{TIP_X + bodyPx + 36} {WORK_TOP + 150}"
        />
        <text class="big" x={TIP_X + bodyPx + 42} y={WORK_TOP + 56}
          >{band.gullet_depth_mm > 0 ? significant(teeth_in_cut, 3) : "–"}</text
        >
        <text x={TIP_X + bodyPx + 42} y={WORK_TOP + 76}
          >{band.gullet_depth_mm > 0 ? "teeth in the work" : "no teeth to count"}</text
        >
        <text class="big" class:full={fill_limit_reached} x={TIP_X + bodyPx + 42} y={WORK_TOP + 146}
          >{significant(100 * gullet_fill, 2)} %</text
        >
        <text x={TIP_X + bodyPx + 42} y={WORK_TOP + 166}>of the gullet filled</text>
        <text x={TIP_X + bodyPx + 42} y={WORK_TOP + 185}>where it leaves</text>
      </g>
    </g>
  </svg>
  <figcaption class="soft">{scaleWords}</figcaption>
</figure>

<style>
  svg {
    width: 100%;
    height: auto;
    display: block;
  }
  .work {
    fill: var(--wood);
  }
  .sawn {
    fill: var(--wood-sawn);
  }
  .work[data-metal="true"],
  .sawn[data-metal="true"] {
    fill: var(--steel);
    opacity: 0.45;
  }
  .hollow {
    fill: var(--ground);
  }
  .work.unseen {
    display: none;
  }
  .grain {
    fill: none;
    stroke: var(--wood-grain);
    stroke-width: 1.2;
    opacity: 0.7;
  }
  .band {
    fill: var(--jade);
  }
  .chip {
    fill: var(--chip);
    stroke: var(--ground);
    stroke-width: 0.5;
  }
  .cut {
    fill: none;
    stroke: var(--ground);
    stroke-width: 5;
  }
  .table {
    fill: var(--steel);
  }
  .guide {
    fill: var(--ink-soft);
  }
  .dim path,
  .say path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
  }
  text {
    fill: var(--ink);
    font-family: var(--font);
    font-size: 16px;
  }
  .dim text {
    font-family: var(--mono);
  }
  .big {
    font-family: var(--mono);
    font-weight: 700;
    font-size: 22px;
  }
  .full {
    fill: var(--brass-text);
  }
  @media (max-width: 45em) {
    text {
      font-size: 22px;
    }
    .big {
      font-size: 30px;
    }
  }
  @media (max-width: 22.5em) {
    text {
      font-size: 25px;
    }
  }
</style>
