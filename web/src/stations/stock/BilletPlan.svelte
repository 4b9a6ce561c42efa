<script lang="ts">
  import Wide from "../../parts/Wide.svelte";
  import type { BilletPlan } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { slicesOf, type LaidSlice } from "./stock";

  const { billet, labels }: { billet: BilletPlan; labels: readonly string[] } = $props();
  const W = 900;
  const across = $derived(Math.max(60, Math.min(220, billet.thickness_mm * 1.6)));
  const x = (mm: number) => (mm / billet.length_mm) * W;
  const y = (mm: number) => (mm / billet.thickness_mm) * across;
  function named(pieces: readonly LaidSlice[]): string {
    const kinds = [...new Set(pieces.map((p) => labels[p.piece] ?? ""))];
    return `${pieces.map((p) => p.number).join(" + ")} ${kinds.join(", ")}`;
  }
  const words = $derived(
    `Billet ${billet.label}: ` +
      billet.sections
        .map((s) => `${shop.say(s.to_mm - s.from_mm, "long")} into ${slicesOf(s.slices).length}`)
        .join(", "),
  );
</script>

<figure>
  <figcaption>
    <strong class="mono">{billet.label}</strong>
    {shop.number(billet.thickness_mm, "length")} × {shop.number(billet.height_mm, "length")} × {shop.say(
      billet.length_mm,
      "long",
    )}{billet.sections.length === 0 ? ": not needed" : ""}
  </figcaption>
  {#if billet.sections.length > 0}
    <Wide label="{billet.label}, cut">
      <svg viewBox="-2 -2 {W + 4} {across + 26}" role="img" aria-label={words}>
        <rect class="billet" width={W} height={across} />
        {#each billet.sections as section (section.from_mm)}
          <rect
            class="section"
            x={x(section.from_mm)}
            width={x(section.to_mm - section.from_mm)}
            height={y(section.thickness_mm)}
          />
          {#each slicesOf(section.slices) as pieces (pieces[0].number)}
            {@const slice = pieces[0]}
            <rect
              class="slice"
              x={x(section.from_mm)}
              y={y(slice.from_mm)}
              width={x(section.to_mm - section.from_mm)}
              height={y(slice.to_mm - slice.from_mm)}
            />
            {#if y(slice.to_mm - slice.from_mm) > 11}
              <!-- A picture of its own: what does not fit is cut off at the slice's end. -->
              <svg
                x={x(section.from_mm)}
                y={y(slice.from_mm)}
                width={x(section.to_mm - section.from_mm)}
                height={y(slice.to_mm - slice.from_mm)}
                ><text x="6" y={y(slice.to_mm - slice.from_mm) / 2 + 4.5}
                  >{named(pieces)}{section.bow_mm > 0.05
                    ? `, keeps ${shop.say(section.bow_mm, "thin")} of bow`
                    : ""}</text
                ></svg
              >
            {/if}
          {/each}
          <text class="length" x={x((section.from_mm + section.to_mm) / 2)} y={across + 20}
            >{shop.say(section.to_mm - section.from_mm, "long")}</text
          >
        {/each}
      </svg>
    </Wide>
  {/if}
</figure>

<style>
  figure {
    margin: 0 0 var(--s4);
  }
  svg:not(svg svg) {
    width: 100%;
    min-width: 38rem;
  }
  .billet {
    fill: var(--wood);
    stroke: var(--ink);
  }
  .section {
    fill: var(--wood-sawn);
  }
  .slice {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 0.8;
  }
  text {
    font: 13px var(--mono);
    fill: var(--ink);
  }
  .length {
    text-anchor: middle;
    fill: var(--ink-soft);
  }
</style>
