<script lang="ts">
  import Who from "../../parts/fields/Who.svelte";
  import { wordsOf } from "../../api/client";
  import type { Acknowledged, Caution, StopMeans } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";
  import { day, time, type Said } from "../../lib/figures/units";

  interface Props {
    cautions: readonly Caution[];
    /** Keys of stops nobody has acknowledged yet. */
    open: readonly string[];
    acknowledged: readonly Acknowledged[];
    /** What answers each stop, and whether this shop has it. */
    means: readonly StopMeans[];
    onacknowledge: (key: string, name: string, means: string) => Promise<void>;
  }
  const { cautions, open, acknowledged, means, onacknowledge }: Props = $props();

  let name = $state("");
  let chosen = $state("");
  let fault = $state<Said>("");
  const titleOf = (key: string) => means.find((m) => m.key === key)?.title.toLowerCase() ?? key;
  const stops = $derived(cautions.filter((c) => c.level === "stop"));

  async function take(key: string, by: string, using: string): Promise<void> {
    try {
      await onacknowledge(key, by, using);
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

{#each stops as stop (stop.key)}
  {@const by = acknowledged.find((a) => a.key === stop.key)}
  {@const able = means.filter((m) => m.stop === stop.key)}
  {@const here = able.filter((m) => m.owned)}
  <section class="stop" aria-label="Stop">
    <p><strong>Stop.</strong> {shop.words(stop.text)}</p>
    {#if by}
      <p>
        {#if by.means}With the <strong>{titleOf(by.means)}</strong>,{:else}Seen to,{/if}
        {#if by.name}by <strong>{by.name}</strong>,{/if}
        {day(by.at)}
        {time(by.at)}.
      </p>
    {:else if open.includes(stop.key)}
      {#if here.length > 0}
        <div class="name no-print" role="group" aria-label="Done with">
          {#each here as m (m.key)}
            <Action main onclick={() => void take(stop.key, "", m.key)}>{m.title}: in use</Action>
          {/each}
        </div>
      {/if}
      <details class="no-print" open={here.length === 0}>
        <summary>{here.length > 0 ? "With something else" : "Who has seen to it?"}</summary>
        <div class="name">
          <Who label="Your name" value={name} onpick={(given) => (name = given)} />
          {#if able.length > here.length}
            <label
              >With
              <select bind:value={chosen}>
                <option value="">{called("stop_why", "other")}</option>
                {#each able.filter((m) => !m.owned) as m (m.key)}<option value={m.key}
                    >{m.title.toLowerCase()}, we have one</option
                  >{/each}
              </select></label
            >
          {/if}
          <Action
            main
            disabled={!name.trim()}
            onclick={() => void take(stop.key, name.trim(), chosen)}>I have seen to it</Action
          >
        </div>
      </details>
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
  summary {
    align-content: center;
  }
</style>
