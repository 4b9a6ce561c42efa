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

  const known = $derived((shop.reference?.symptoms ?? []) as Symptoms);
  const hot = $derived(symptoms.includes("smoke") || symptoms.includes("burn"));

  function toggle(symptom: Symptoms[number]): void {
    onsymptoms(
      symptoms.includes(symptom) ? symptoms.filter((s) => s !== symptom) : [...symptoms, symptom],
    );
  }
</script>

<fieldset>
  <legend>Anything seen, heard or felt?</legend>
  <div>
    {#each known as symptom (symptom)}
      <button
        type="button"
        aria-pressed={symptoms.includes(symptom)}
        onclick={() => toggle(symptom)}>{symptom.replaceAll("_", " ")}</button
      >
    {/each}
  </div>
</fieldset>
{#if hot}
  <p role="alert">
    <strong>Stop.</strong> Look into the dust box for smouldering before leaving it.
  </p>
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
