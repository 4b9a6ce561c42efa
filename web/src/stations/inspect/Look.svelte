<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  interface Props {
    /** The class chosen, 1 to 5. */
    roughness: number | null;
    /** From ridge to ridge. */
    ridge_mm: number | null;
    onroughness: (grade: number | null) => void;
    onridge: (mm: number | null) => void;
  }
  const { roughness, ridge_mm, onroughness, onridge }: Props = $props();
  const known = $derived(shop.reference?.roughness ?? []);
  let open = $state(false);
  let ten = $state<number | null>(null);

  /** The profile of a face of a class, as one looks along it: 80 by 24. */
  const PROFILES: Readonly<Record<number, string>> = {
    1: "M0 12H80",
    2: "M0 12q4-2 8 0t8 0t8 0t8 0t8 0t8 0t8 0t8 0t8 0t8 0",
    3: "M0 14q5-7 10 0t10 0t10 0t10 0t10 0t10 0t10 0t10 0",
    4: "M0 18l8-12l6 11l9-13l7 12l10-13l8 13l9-12l8 12l8-11l7 8",
    5: "M0 16l4-12l2 14l5-9l-1-7l6 15l3-14l6 17l2-9l5-8l3 14l7-15l1 16l6-11l4 12l5-16l4 13l6-10l5 8",
  };
</script>

<fieldset>
  <legend>How it looks</legend>
  <div>
    {#each known as kind (kind.grade)}
      <button
        type="button"
        aria-pressed={roughness === kind.grade}
        onclick={() => onroughness(roughness === kind.grade ? null : kind.grade)}
      >
        <svg viewBox="0 0 80 24" aria-hidden="true"><path d={PROFILES[kind.grade] ?? ""} /></svg>
        {kind.name}
      </button>
    {/each}
  </div>
</fieldset>
<details bind:open>
  <summary>Ridges across it{ridge_mm === null ? "" : `: ${shop.say(ridge_mm, "thin")}`}</summary>
  <QuantityField
    label="Over ten of them"
    kind="length"
    help="Lay a rule along the cut, count ten from one ridge on."
    value={ten ?? (ridge_mm === null ? null : 10 * ridge_mm)}
    onvalue={(v) => {
      ten = v;
      onridge(v === null ? null : v / 10);
    }}
  />
</details>

<style>
  legend,
  div {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(7rem, 100%), 1fr));
    gap: var(--s2);
    padding: var(--s1) 0 var(--s3);
  }
  button {
    display: grid;
    justify-items: center;
    align-content: start;
    gap: var(--s1);
    min-height: var(--touch);
    padding: var(--s1);
    border: var(--hair) solid var(--hairline);
    font-size: var(--text-small);
  }
  button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-color: var(--jade);
    font-weight: 650;
  }
  svg {
    width: 5rem;
  }
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
    stroke-linejoin: round;
  }
</style>
