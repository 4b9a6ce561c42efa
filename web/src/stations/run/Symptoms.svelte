<script lang="ts">
  import type { RunInput } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";

  type Symptoms = NonNullable<RunInput["symptoms"]>;
  interface Props {
    /** What was seen, heard or felt, by the words of the record. */
    symptoms: Symptoms;
    onsymptoms: (symptoms: Symptoms) => void;
  }
  const { symptoms, onsymptoms }: Props = $props();

  const known = $derived(shop.reference?.signs ?? []);
  const stop = $derived(known.find((s) => s.stop && symptoms.includes(s.key))?.stop);

  function toggle(symptom: Symptoms[number]): void {
    onsymptoms(
      symptoms.includes(symptom) ? symptoms.filter((s) => s !== symptom) : [...symptoms, symptom],
    );
  }
</script>

<fieldset>
  <legend>Anything seen, heard or felt?</legend>
  <div>
    {#each known as sign (sign.key)}
      <button
        type="button"
        aria-pressed={symptoms.includes(sign.key)}
        onclick={() => toggle(sign.key)}>{sign.name}</button
      >
    {/each}
  </div>
</fieldset>
{#if stop}
  <p role="alert"><strong>Stop.</strong> {stop}</p>
{/if}

<style>
  legend {
    font-weight: 600;
    padding-bottom: var(--s2);
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
  }
  button {
    min-height: 3.25rem;
    padding: 0 var(--s4);
    background: none;
    border: var(--hair) solid var(--ink);
  }
  button[aria-pressed="true"] {
    background: var(--ink);
    color: var(--ground);
    font-weight: 650;
  }
  p {
    border-left: var(--s2) solid var(--vermilion);
    background: var(--vermilion-pale);
    padding: var(--s3);
  }
  strong {
    color: var(--vermilion);
  }
</style>
