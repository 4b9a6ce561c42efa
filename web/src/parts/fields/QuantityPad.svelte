<script lang="ts">
  import { INCH_MM } from "../../lib/figures/units";
  import { shop } from "../../lib/shop.svelte";
  import type { Kind, Said } from "../../lib/figures/units";
  import QuantityField from "./QuantityField.svelte";

  interface Props {
    label: string;
    value: number | null;
    /** Where the steps begin while there is none. */
    start?: number | null;
    kind: Kind;
    usual?: string;
    help?: string;
    error?: Said;
    onvalue: (value: number | null) => void;
  }
  const {
    label,
    value,
    start = null,
    kind,
    usual = "",
    help = "",
    error = "",
    onvalue,
  }: Props = $props();

  const SIXTEENTHS = Array.from({ length: 15 }, (_, i) => i + 1);
  const inch = $derived(shop.units === "inch" && kind === "length");
  const step = $derived.by(() => {
    if (inch) return INCH_MM / 16;
    const size = Math.abs(value ?? 1);
    return size >= 1000 ? 100 : size >= 200 ? 10 : size >= 20 ? 1 : size >= 2 ? 0.5 : 0.1;
  });

  function fraction(n: number): string {
    let [top, bottom] = [n, 16];
    while (top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
    return `${top}/${bottom}`;
  }

  function by(steps: number): void {
    const next = value === null ? (start ?? step) : Number((value + steps * step).toFixed(4));
    if (next > 0 || usual === "angle_deg") onvalue(next);
  }

  function sixteenth(n: number): void {
    const whole = Math.floor((value ?? 0) / INCH_MM + 1e-6);
    onvalue(Number(((whole + n / 16) * INCH_MM).toFixed(4)));
  }
</script>

<div class="pad">
  <button type="button" class="step" aria-label="Less" onclick={() => by(-1)}>−</button>
  <QuantityField {label} {value} {kind} {usual} {help} {error} big required {onvalue} />
  <button type="button" class="step" aria-label="More" onclick={() => by(1)}>+</button>
</div>
{#if inch}
  <div class="sixteenths" role="group" aria-label="Fraction of an inch">
    {#each SIXTEENTHS as n (n)}
      <button type="button" class="mono" onclick={() => sixteenth(n)}>{fraction(n)}</button>
    {/each}
  </div>
{/if}

<style>
  .pad {
    display: flex;
    gap: var(--s4);
    align-items: flex-start;
  }
  .step {
    width: 4rem;
    height: 4rem;
    margin-top: var(--s5);
    font-size: var(--figure);
    background: var(--jade-pale);
    border: 0;
    border-bottom: var(--rule) solid var(--jade);
  }
  .sixteenths {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s1);
    padding-top: var(--s3);
  }
  .sixteenths button {
    min-width: 3.5rem;
    min-height: var(--touch);
    background: var(--ground);
    border: var(--hair) solid var(--hairline);
  }
</style>
