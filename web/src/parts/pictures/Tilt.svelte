<script lang="ts">
  import { significant } from "../../lib/figures/units";

  interface Props {
    /** Of the table against square to the band, degrees; either side. */
    angle_deg: number;
  }
  const { angle_deg }: Props = $props();

  const W = 260;
  const H = 170;
  const X = 130;
  const Y = 128;
  const turn = $derived(`rotate(${angle_deg} ${X} ${Y})`);
  const low = $derived(angle_deg > 0 ? "right" : "left");
  const arc = $derived.by(() => {
    const r = 84;
    const a = (angle_deg * Math.PI) / 180;
    return `M${X + r} ${Y}A${r} ${r} 0 0 ${a > 0 ? 1 : 0} ${X + r * Math.cos(a)} ${Y + r * Math.sin(a)}`;
  });
</script>

<figure>
  <svg
    class="drawing"
    viewBox="0 0 {W} {H}"
    role="img"
    aria-label="Seen along the feed: the table tilted {significant(
      Math.abs(angle_deg),
      3,
    )} degrees, low on the {low}, the fence on its low side"
  >
    <g transform={turn}>
      <rect class="work" x={X - 62} y={Y - 62} width="124" height="62" />
      <rect class="table" x={X - 104} y={Y} width="98" height="9" />
      <rect class="table" x={X + 6} y={Y} width="98" height="9" />
      <rect class="fence" x={low === "right" ? X + 62 : X - 70} y={Y - 30} width="8" height="30" />
    </g>
    <path class="kerf" d="M{X} 8V{H - 6}" />
    <path class="dim" d="M{X} {Y}h100M{arc.slice(1)}" />
    <text x={X + 106} y={Y + (angle_deg > 0 ? -6 : 18)} text-anchor="end"
      >{significant(Math.abs(angle_deg), 3)}°</text
    >
    <text x="6" y="20">along the feed</text>
  </svg>
  <figcaption class="soft">The fence goes on the low side, so that nothing slides off.</figcaption>
</figure>

<style>
  figure {
    max-width: 20rem;
  }
  .work {
    fill: var(--wood);
  }
  .table {
    fill: var(--steel);
  }
  .fence {
    fill: var(--ink-soft);
  }
  .kerf {
    stroke: var(--jade);
    stroke-width: 4;
    fill: none;
  }
  .dim {
    stroke: var(--ink);
    fill: none;
  }
  .drawing text {
    font-family: var(--mono);
    font-size: 14px;
  }
</style>
