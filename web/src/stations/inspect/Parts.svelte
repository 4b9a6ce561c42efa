<script lang="ts">
  import type { FaceAnswer, FacePart } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import Term from "../../parts/Term.svelte";
  import { ledBy } from "./face";

  /** A face, and an earlier one beside it on the same axes. */
  interface Props {
    face: FaceAnswer;
    before: FaceAnswer | null;
    /** No accuracy is asked of the job: it is held to the usual one. */
    usual: boolean;
  }
  const { face, before, usual }: Props = $props();
  const NAMES = {
    thickness: "Thickness, mean against asked",
    taper: "Taper, end to end",
    lean: "Lean, top to bottom",
    barrel: "Barrel, middle to edges",
    waves: "Waves",
  } as const;
  const SAID = {
    within: "within the tolerance",
    over: "over the tolerance",
    cannot_tell: "cannot tell: read more points",
  } as const;
  const W = 420;

  const most = $derived(
    Math.max(
      1.25 * face.tolerance_mm,
      ...[face, before].flatMap((f) =>
        (f?.face.parts ?? []).map((p) => Math.abs(p.amount_mm) + p.doubt_mm),
      ),
    ),
  );
  const at = (mm: number) => (Math.min(Math.abs(mm), most) / most) * W;
  const earlier = (key: FacePart["key"]) => before?.face.parts.find((p) => p.key === key);
</script>

<ul>
  {#each face.face.parts as part (part.key)}
    {@const old = earlier(part.key)}
    <li data-verdict={part.verdict}>
      <p>
        <Term key={part.key}>{NAMES[part.key]}</Term>
        <span class="mono">{shop.withDoubt(part.amount_mm, part.doubt_mm, "thin")}</span>
        <span class="said">{SAID[part.verdict]}</span>
      </p>
      <svg viewBox="-6 -14 {W + 12} 30" preserveAspectRatio="xMinYMid" aria-hidden="true">
        <line x2={W} class="axis" />
        <line
          class="limit"
          x1={at(face.tolerance_mm)}
          x2={at(face.tolerance_mm)}
          y1="-11"
          y2="11"
        />
        <line
          class="whisker"
          x1={at(Math.max(0, Math.abs(part.amount_mm) - part.doubt_mm))}
          x2={at(Math.abs(part.amount_mm) + part.doubt_mm)}
        />
        <circle cx={at(part.amount_mm)} r="5" class="now" />
        {#if old}<circle cx={at(old.amount_mm)} r="5" class="before" />{/if}
      </svg>
    </li>
  {/each}
</ul>
<p class="soft">
  The upright is {usual ? "what is usual where no accuracy is asked" : "the job’s tolerance"}, {shop.say(
    face.tolerance_mm,
    "thin",
  )}; the bar holds eight in ten of what a part may be.
  {#if before}Hollow: the face before{before.piece ? `, ${before.piece}` : ""}{ledBy(
      before.guided,
    )}.{/if}
</p>

<style>
  li {
    padding: var(--s2) 0;
    border-top: var(--rule) solid var(--hairline);
  }
  li p {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    margin: 0;
  }
  .said {
    color: var(--ink-soft);
  }
  [data-verdict="over"] .said {
    color: var(--vermilion);
    font-weight: 650;
  }
  svg {
    width: 100%;
    max-width: 34rem;
    height: 30px;
  }
  .axis {
    stroke: var(--hairline);
    stroke-width: 2;
  }
  .limit {
    stroke: var(--vermilion);
    stroke-width: 2;
  }
  .whisker {
    stroke: var(--jade);
    stroke-width: 6;
    stroke-opacity: 0.35;
  }
  .now {
    fill: var(--jade);
  }
  .before {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
</style>
