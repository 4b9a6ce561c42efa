<script lang="ts">
  import type { SetupAnswer } from "../../api/schema";
  import AlignmentCoach from "./tools/AlignmentCoach.svelte";
  import DriftTool from "./tools/DriftTool.svelte";
  import ShimsTool from "./tools/ShimsTool.svelte";
  import SpeedTool from "./tools/SpeedTool.svelte";
  import TensionTool from "./tools/TensionTool.svelte";
  import TickTool from "./tools/TickTool.svelte";
  import TrackTool from "./tools/TrackTool.svelte";
  import VibrationTool from "./tools/VibrationTool.svelte";
  import type { SetupState } from "./setup.svelte";

  interface Props {
    card: SetupState;
    setup: SetupAnswer;
    step: string;
  }
  const { card, setup, step }: Props = $props();
</script>

<div class="no-print">
  {#if step === "tension"}
    <TensionTool {card} {setup} />
  {:else if step === "rough_track"}
    <TrackTool {card} {setup} {step} />
  {:else if step === "fine_track"}
    <TrackTool {card} {setup} {step} />
    <details>
      <summary>It will not sit on both wheels: true them</summary>
      <AlignmentCoach saw_id={setup.saw_id} who={card.who} />
    </details>
  {:else if (step === "guides_upper" || step === "guides_lower") && !setup.card.guides.roller_press_mm}
    <ShimsTool guides={setup.card.guides} />
  {:else if step === "speed"}
    <SpeedTool {card} {setup} />
  {:else if step === "start"}
    <TickTool {setup} />
    <VibrationTool {setup} />
  {:else if step === "drift"}
    <DriftTool {card} {setup} />
  {/if}
</div>

<style>
  summary {
    text-decoration: underline dotted;
    text-underline-offset: 0.3em;
  }
</style>
