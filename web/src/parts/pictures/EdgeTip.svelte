<script lang="ts">
  interface Props {
    /** Class of the edge in words. */
    edge: string;
    /** Radius of the tip, µm, as the core gives it for the class. */
    radius_um: number;
  }
  const { edge, radius_um }: Props = $props();
  // Drawn at 0.16 px to the µm: the keen tip is nearly a point, the spent one a knob.
  const r = $derived(Math.max(1, radius_um * 0.16));
</script>

<span class="tip">
  <svg viewBox="0 0 26 22" width="26" height="22" aria-hidden="true">
    <path d="M26 1 L{4 + r} {11 - r} A{r} {r} 0 0 0 {4 + r * 0.6} {11 + r} L12 21 L26 21 Z" />
  </svg>
  {edge}
</span>

<style>
  .tip {
    display: inline-flex;
    align-items: center;
    gap: var(--s2);
    white-space: nowrap;
  }
  path {
    fill: var(--jade-pale);
    stroke: var(--ink);
    stroke-width: var(--rule);
    stroke-linejoin: round;
  }
</style>
