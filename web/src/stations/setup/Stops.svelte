<script lang="ts">
  import Who from "../../parts/fields/Who.svelte";
  import { wordsOf } from "../../api/client";
  import type { Acknowledged, Caution } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";
  import { day, time, type Said } from "../../lib/units";

  interface Props {
    cautions: readonly Caution[];
    /** Keys of stops nobody has acknowledged yet. */
    open: readonly string[];
    acknowledged: readonly Acknowledged[];
    onacknowledge: (key: string, name: string) => Promise<void>;
  }
  const { cautions, open, acknowledged, onacknowledge }: Props = $props();

  let name = $state("");
  let fault = $state<Said>("");
  const stops = $derived(cautions.filter((c) => c.level === "stop"));

  async function take(key: string): Promise<void> {
    try {
      await onacknowledge(key, name.trim());
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

{#each stops as stop (stop.key)}
  {@const by = acknowledged.find((a) => a.key === stop.key)}
  <section class="stop" aria-label="Stop">
    <p><strong>Stop.</strong> {shop.words(stop.text)}</p>
    {#if by}
      <p>Acknowledged by <strong>{by.name}</strong>, {day(by.at)} {time(by.at)}.</p>
    {:else if open.includes(stop.key)}
      <div class="name no-print">
        <Who label="Your name" value={name} onpick={(given) => (name = given)} />
        <Action main disabled={!name.trim()} onclick={() => void take(stop.key)}
          >I have seen to it</Action
        >
      </div>
      {#if fault}<p role="alert">{shop.words(fault)}</p>{/if}
    {/if}
  </section>
{/each}

<style>
  .stop {
    border-left: var(--s2) solid var(--vermilion);
    background: var(--vermilion-pale);
    padding: var(--s4);
    margin-bottom: var(--s4);
    font-size: var(--text-large);
    max-width: 60rem;
  }
  .stop p:first-child strong {
    color: var(--vermilion);
  }
  .name {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    padding-top: var(--s3);
  }
</style>
