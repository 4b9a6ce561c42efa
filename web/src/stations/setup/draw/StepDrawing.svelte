<script lang="ts">
  import type { SetupAnswer } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import GuideGaps from "./GuideGaps.svelte";
  import OnTyre from "./OnTyre.svelte";
  import Plates from "./Plates.svelte";
  import Rollers from "./Rollers.svelte";
  import SawLoop from "./SawLoop.svelte";
  import SpeedScale from "./SpeedScale.svelte";
  import Strip from "./Strip.svelte";
  import type { Means } from "../means";

  interface Props {
    setup: SetupAnswer;
    step: string;
    /** The means of tension in hand. */
    means?: Means;
    /** What was typed or recorded of a freehand trial. */
    drift?: Readonly<Record<string, number | null>>;
  }
  const { setup, step, means = "gauge", drift = {} }: Props = $props();

  const band = $derived(setup.option.band);
  const saw = $derived(shop.saw(setup.saw_id)?.saw);
  const diameters = $derived(saw?.wheel_diameters_mm ?? [400, 400]);
  const tension = $derived(setup.card.tension);
  const LOOPS: Record<string, "mount" | "span" | "doors" | "lock"> = {
    isolate: "lock",
    mount: "mount",
    tension: "span",
    start: "doors",
  };
  const loop = $derived(LOOPS[step]);
  const swing = $derived(
    typeof drift.offset_mm === "number" && typeof drift.run_mm === "number"
      ? { offset_mm: drift.offset_mm, run_mm: drift.run_mm }
      : null,
  );
  const PLATES = ["guides_back", "guard", "table", "table_pin", "trial", "drift"] as const;
  const plate = $derived(PLATES.find((p) => p === step));
</script>

{#if loop}
  <SawLoop
    {diameters}
    band_length_mm={band.length_mm}
    horizontal={saw?.orientation === "horizontal"}
    show={loop}
    {tension}
    {means}
  />
{:else if step === "inspect"}
  <Strip {band} />
{:else if step === "rough_track" || step === "fine_track"}
  <OnTyre
    band_width_mm={band.width_mm}
    thickness_mm={band.thickness_mm}
    tyre={saw?.tyre ?? "crowned"}
    position={setup.card.band_position}
  />
{:else if (step === "guides_upper" || step === "guides_lower") && setup.card.guides.roller_press_mm}
  <Rollers
    press={setup.card.guides.roller_press_mm}
    flange_mm={setup.card.guides.flange_gap_mm}
    arm={step === "guides_upper" ? "movable" : "fixed"}
  />
{:else if step === "guides_upper" || step === "guides_lower"}
  <GuideGaps {band} guides={setup.card.guides} kind={saw?.guides ?? "rolling"} />
{:else if step === "speed" && saw}
  <SpeedScale
    drive={saw.drive}
    set_m_s={setup.card.speed_m_s}
    target_m_s={setup.card.speed_m_s / (1 + setup.option.speed_off_target)}
  />
{:else if plate}
  <Plates
    show={plate}
    guides={setup.card.guides}
    horizontal={saw?.orientation === "horizontal"}
    height_mm={setup.card.guides.guard_height_mm - setup.card.guides.guard_gap_mm}
    {swing}
  />
{/if}
