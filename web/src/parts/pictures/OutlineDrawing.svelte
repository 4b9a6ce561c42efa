<script lang="ts">
  import type { Outline } from "../../api/schema";
  import { fitOutline, pieces } from "../../drawings/outline";
  import { shop } from "../../lib/shop.svelte";

  interface Props {
    outline: Outline;
    /** Tightest radius of the band in hand, mm; null when none is. */
    turns_mm: number | null;
    label: string;
  }
  const { outline, turns_mm, label }: Props = $props();
  const W = 420;
  const H = 170;
  const fit = $derived(fitOutline(outline, W, H, 22));
  const drawn = $derived(outline.chains.flatMap((chain) => pieces(chain, turns_mm, fit)));
  const words = $derived(
    outline.min_radius_mm === null
      ? "The outline, all straight"
      : `The outline; its tightest radius ${shop.say(outline.min_radius_mm, "length")} is marked`,
  );
</script>

<figure>
  <svg viewBox="0 0 {W} {H}" width={W} height={H} role="img" aria-label={words}>
    {#each drawn as piece, i (i)}<path d={piece.d} data-kind={piece.kind} />{/each}
    {#each outline.corners as corner, i (i)}
      {@const [x, y] = fit([corner[0], corner[1]])}
      <path class="corner" d="M{x - 7} {y - 7}l14 14m0 -14l-14 14" />
    {/each}
    {#if outline.at_mm}
      {@const [x, y] = fit([outline.at_mm[0], outline.at_mm[1]])}
      <circle class="at" cx={x} cy={y} r="9" />
    {/if}
  </svg>
  <figcaption class="soft">
    {#if turns_mm !== null}Solid: {label} turns it. Dashed heavy: too tight for it, relief cuts here.{/if}
    Ring: the tightest place. Cross: a sharp corner.
  </figcaption>
</figure>

<style>
  svg {
    max-width: 100%;
    height: auto;
    background: var(--paper);
  }
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  [data-kind="turns"] {
    stroke: var(--jade);
    stroke-width: 3;
  }
  [data-kind="tight"] {
    stroke: var(--brass);
    stroke-width: 5;
    stroke-dasharray: 6 4;
  }
  .corner {
    stroke: var(--vermilion);
  }
  .at {
    fill: none;
    stroke: var(--brass-text);
    stroke-width: 2.5;
  }
  figcaption {
    max-width: 26rem;
  }
</style>
