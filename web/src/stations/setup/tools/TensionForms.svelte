<script lang="ts">
  import type { TensionCard } from "../../../api/schema";
  import { called } from "../../../lib/forms";
  import { shop } from "../../../lib/shop.svelte";
  import { significant } from "../../../lib/figures/units";

  const { card }: { card: TensionCard } = $props();
  const sure = $derived(
    `Good to: ${Object.entries(card.uncertainty)
      .map(([means, share]) => `${called("means", means)} ${significant(100 * share, 2)} %`)
      .join(", ")}.`,
  );
  const other = $derived(
    shop.units === "metric"
      ? `${significant(card.forms.stress_psi, 3)} psi`
      : `${significant(card.stress_MPa, 3)} MPa`,
  );
</script>

<section aria-label="Tension, in every form">
  <p class="lead">
    <span class="mono">{shop.number(card.stress_MPa, "stress")}</span>
    {shop.unit("stress")}
    <span class="soft">tension, {other}, {significant(card.forms.stress_kgf_cm2, 3)} kgf/cm²</span>
  </p>
  <dl>
    <div>
      <dt>gauge</dt>
      <dd>
        <strong class="mono">{shop.say(card.forms.gauge_stretch_um, "stretch")}</strong> over {shop.say(
          card.gauge_length_mm,
          "length",
        )}, zeroed slack
      </dd>
    </div>
    {#if card.note_Hz !== null && card.free_span_mm !== null}
      <div>
        <dt>note</dt>
        <dd>
          <strong class="mono">{significant(card.note_Hz, 3)} Hz</strong>
          {card.note_name}, the free {shop.say(card.free_span_mm, "length")} plucked, guides off
        </dd>
      </div>
    {/if}
    {#if card.side_push}
      <div>
        <dt>{called("means", "push")}</dt>
        <dd>
          <strong class="mono">{shop.say(card.side_push.force_N, "force")}</strong> bends the middle
          of it {shop.say(card.side_push.deflection_mm, "length")}, guides off
        </dd>
      </div>
    {/if}
    {#if card.wheel_travel_mm !== null}
      <div>
        <dt>travel</dt>
        <dd>
          <strong class="mono">{shop.say(card.wheel_travel_mm, "thin")}</strong> of the wheel from snug,
          plus tyre and frame: only once calibrated here
        </dd>
      </div>
    {/if}
    <div>
      <dt>at the wheel</dt>
      <dd>
        <strong class="mono">{shop.say(card.wheel_force_N, "force")}</strong>
        {card.frame_limit_N === null
          ? "the frame’s limit is not recorded"
          : `of the frame’s ${shop.say(card.frame_limit_N, "force")}`}
      </dd>
    </div>
  </dl>
  <p class="soft">
    This steel wants {shop.number(card.low_MPa, "stress")} to {shop.say(card.high_MPa, "stress")}.
    {sure}
  </p>
</section>

<style>
  section {
    border-top: var(--rule) solid var(--ink);
    border-bottom: var(--rule) solid var(--ink);
    padding-bottom: var(--s2);
  }
  .lead .mono {
    font-size: var(--figure-large);
    font-weight: 700;
  }
  dl div {
    display: grid;
    grid-template-columns: 5.75rem 1fr;
    gap: var(--s3);
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  dd strong {
    font-size: var(--text-large);
  }
</style>
