<script lang="ts">
  import { edge, path } from "../../drawings/tooth";

  interface Props {
    form: string;
    name: string;
    hook_deg: number;
    /** Depth of the gullet as a share of the pitch; 0 of an edge without teeth. */
    depth_share: number;
  }
  const { form, name, hook_deg, depth_share }: Props = $props();
  const W = 300;
  const PITCH = 72;
  const tooth = $derived({ form, pitch: PITCH, depth: depth_share * PITCH, hookDeg: hook_deg });
  /** Where the teeth stand: a variable pitch goes from coarse to fine and back. */
  const stretch = (along: number): number =>
    form === "variable"
      ? along + (PITCH / 3) * Math.sin((2 * Math.PI * along) / (3 * PITCH))
      : along;
  const outline = $derived(
    path(edge(tooth, W + PITCH), (p) => [stretch(p.along), 8 + p.into]) + `L${W + PITCH} 64L0 64Z`,
  );
</script>

<svg class="drawing" viewBox="0 0 {W} 66" role="img" aria-label="{name}, its teeth from the side">
  <path d={outline} />
</svg>

<style>
  path {
    fill: var(--steel, var(--hairline));
    stroke: var(--ink);
    stroke-width: 1.6;
  }
</style>
