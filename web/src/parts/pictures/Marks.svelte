<script lang="ts">
  import type { Mark } from "../../drawings/marks";

  interface Props {
    marks: readonly Mark[];
    wide: number;
    high: number;
    /** What it shows, for one who cannot see it; left out where words stand beside it. */
    label?: string;
  }
  const { marks, wide, high, label }: Props = $props();
</script>

<svg
  viewBox="0 0 {wide} {high}"
  role={label ? "img" : undefined}
  aria-label={label}
  aria-hidden={label ? undefined : true}
>
  {#each marks as mark, i (i)}<path class={mark.as} d={mark.d} />{/each}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  path {
    fill: none;
    stroke: none;
    stroke-width: 1.4;
    stroke-linejoin: round;
    stroke-linecap: round;
  }
  .ink {
    stroke: var(--ink);
    stroke-width: 1.7;
  }
  .soft {
    stroke: var(--ink-soft);
    stroke-width: 1;
  }
  .hair {
    stroke: var(--hairline);
    stroke-width: 1;
  }
  .dash {
    stroke: var(--ink-soft);
    stroke-width: 1.1;
    stroke-dasharray: 4 3;
  }
  .wood {
    fill: var(--wood);
  }
  .sawn {
    fill: var(--wood-sawn);
  }
  .grain {
    stroke: var(--wood-grain);
    stroke-width: 1.1;
  }
  .steel {
    fill: color-mix(in srgb, var(--steel) 35%, var(--paper));
  }
  .jade {
    fill: var(--jade-pale);
    stroke: var(--jade);
    stroke-width: 1.2;
  }
  .chip {
    fill: var(--chip);
  }
  .burn {
    fill: color-mix(in srgb, var(--chip) 60%, var(--ink));
    fill-opacity: 0.7;
    stroke: color-mix(in srgb, var(--chip) 60%, var(--ink));
    stroke-width: 1.3;
  }
  .move {
    stroke: var(--jade);
    stroke-width: 1.8;
  }
  .mark {
    stroke: var(--brass);
    stroke-width: 2.4;
  }
  .stop {
    stroke: var(--vermilion);
    stroke-width: 2;
  }
  .paper {
    fill: var(--paper);
  }
</style>
