<script lang="ts">
  import type { RunInput, SignEffect } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { percent } from "../../lib/figures/units";

  type Symptoms = NonNullable<RunInput["symptoms"]>;
  interface Props {
    /** What was seen, heard or felt, by the words of the record. */
    symptoms: Symptoms;
    /** What each sign would do to this edge, as the run card holds it. */
    effects?: readonly SignEffect[];
    onsymptoms: (symptoms: Symptoms) => void;
  }
  const { symptoms, effects = [], onsymptoms }: Props = $props();

  const known = $derived(shop.reference?.signs ?? []);
  const stops = $derived(known.filter((s) => s.stop && symptoms.includes(s.key)));
  /** One verdict a sign, and over a stop nothing else is said to do. */
  const tapped = $derived(
    effects.filter((e) => symptoms.includes(e.sign) && e.do !== "stop" && stops.length === 0),
  );
  /** As Faults calls them; gum is a cause by itself, cleaned, not asked about. */
  const wrong = $derived(
    known.filter((s) => s.fault && symptoms.includes(s.key)).map((s) => s.fault),
  );
  const name = (key: string) => known.find((s) => s.key === key)?.name ?? key;

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
{#if wrong.length > 0}
  <p><a class="find" href="#/faults?from=run&signs={wrong.join(',')}">Find the cause</a></p>
{/if}
{#each stops as sign (sign.key)}
  <p class="stop" role="alert"><strong>{name(sign.key)}:</strong> {sign.stop}</p>
{/each}
{#each tapped as effect (effect.sign)}
  <p class="effect" data-do={effect.do} role="status">
    <strong>{name(effect.sign)}:</strong>
    {shop.words(effect.words)}
    {#if effect.dullness_after > effect.dullness_before + 0.005}
      <span class="soft"
        >It makes the edge {percent(effect.dullness_after)} used instead of {percent(
          effect.dullness_before,
        )}.</span
      >
    {/if}
  </p>
{/each}

<style>
  legend {
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
    border: var(--hair) solid var(--ink);
  }
  button[aria-pressed="true"] {
    background: var(--ink);
    color: var(--ground);
    font-weight: 650;
  }
  .find {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    font-weight: 650;
  }
  .stop {
    border-left: var(--s2) solid var(--vermilion);
    background: var(--vermilion-pale);
    padding: var(--s3);
  }
  .stop strong {
    color: var(--vermilion);
  }
  .effect {
    border-left: var(--s2) solid var(--brass);
    padding: var(--s1) var(--s3);
  }
  .effect[data-do="nothing"] {
    border-left-color: var(--hairline);
  }
  .effect[data-do="change"] {
    border-left-color: var(--vermilion);
  }
</style>
