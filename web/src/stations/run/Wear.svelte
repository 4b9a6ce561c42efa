<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import type { RunAnswer } from "../../api/schema";
  import { significant } from "../../lib/figures/units";
  import EdgeTip from "../../parts/pictures/EdgeTip.svelte";

  interface Props {
    /** The run just logged, with what it wore off its band. */
    run: RunAnswer;
  }
  const { run }: Props = $props();
  /** In whole per cent: an edge is known no nearer. */
  const whole = (share: number) =>
    share < (shop.reference?.chances.least ?? 0)
      ? shop.chance(share)
      : `${Math.round(100 * share)} %`;
</script>

<p class="edge">
  <EdgeTip edge={run.band.edge} radius_um={run.band.tip_radius_um} />
  <span class="mono">{run.band.label}</span>
</p>
<div
  class="wear"
  role="img"
  aria-label="Edge used: from {whole(run.dullness_before)} to {whole(run.band.dullness)}"
>
  <i class="was" style:width="{Math.min(100 * run.dullness_before, 100)}%"></i>
  <i
    class="now"
    style:width="{Math.min(100 * Math.max(run.band.dullness - run.dullness_before, 0), 100)}%"
  ></i>
</div>
<p>
  Edge used: {whole(run.dullness_before)} before,
  <strong>{whole(run.band.dullness)}</strong> now.
</p>
<p>{shop.words(run.next_words)}</p>
<dl>
  <div>
    <dt>contact</dt>
    <dd class="mono">{significant(run.contact_m, 3)} m a tooth</dd>
  </div>
  <div>
    <dt>as oak</dt>
    <dd class="mono">{significant(run.equivalent_m, 3)} m</dd>
  </div>
  <div>
    <dt>pace</dt>
    <dd class="mono">{significant(run.minutes_per_m2, 3)} min/m²</dd>
  </div>
  <div>
    <dt>gum</dt>
    <dd class="mono">{whole(run.band.fouling)}</dd>
  </div>
</dl>

<style>
  .edge {
    font-size: var(--figure);
    font-weight: 650;
    display: flex;
    gap: var(--s4);
  }
  .wear {
    display: flex;
    width: 100%;
    height: 1.2rem;
    border: var(--hair) solid var(--ink);
  }
  .was {
    background: var(--steel);
  }
  .now {
    background: var(--brass);
    transition: width var(--slow);
  }
  dl {
    width: 100%;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    border-top: var(--hair) solid var(--hairline);
    padding: var(--s1) 0;
  }
</style>
