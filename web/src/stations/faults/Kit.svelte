<script lang="ts">
  import { ask, client } from "../../api/client";
  import { notice } from "../../lib/notice.svelte";
  import FaultPages from "./FaultPages.svelte";
  import { known, NEEDS } from "./known.svelte";

  known.load().catch((p: unknown) => notice.fail(p));
  const has = $derived(known.all?.has ?? known.all?.instruments ?? []);

  async function turn(key: string): Promise<void> {
    const next = has.includes(key) ? has.filter((k) => k !== key) : [...has, key];
    try {
      known.all = await ask(client.POST("/api/faults/instruments", { body: { has: next } }));
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<FaultPages title="What we check with" />
<p class="soft">
  Checks that need what is not here are not asked; where one would tell more, it says so.
</p>
<ul>
  {#each known.all?.instruments ?? [] as key (key)}
    <li>
      <button type="button" aria-pressed={has.includes(key)} onclick={() => void turn(key)}
        >{NEEDS[key] ?? key}<span>{has.includes(key) ? "here" : "not here"}</span></button
      >
    </li>
  {/each}
</ul>
{#if known.all}
  <p class="soft">
    {known.all.troubles === 0
      ? "No trouble is closed with its cause yet: the tables speak alone."
      : `The tables count as 20 troubles; this shop’s own ${known.all.troubles} stand beside them.`}
  </p>
{/if}

<style>
  ul {
    max-width: 34rem;
    padding: var(--s3) 0;
  }
  button {
    display: flex;
    justify-content: space-between;
    width: 100%;
    min-height: var(--touch);
    border-top: var(--hair) solid var(--hairline);
    text-align: left;
  }
  button[aria-pressed="true"] {
    font-weight: 650;
  }
  button[aria-pressed="false"] {
    color: var(--ink-soft);
  }
</style>
