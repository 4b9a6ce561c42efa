<script lang="ts">
  import { ask, client, wordsOf } from "../../api/client";
  import type { TroubleAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { recall, remember } from "../../lib/storage";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Who from "../../parts/fields/Who.svelte";

  interface Props {
    trouble: TroubleAnswer;
    ondone: (trouble: TroubleAnswer) => void;
  }
  const { trouble, ondone }: Props = $props();
  let who = $state(recall("who", ""));
  let fault = $state<Said>("");
  const stop = $derived(trouble.stops.find((s) => !trouble.acknowledged[s.key]));

  async function stands(key: string): Promise<void> {
    remember("who", who);
    try {
      const params = { path: { trouble_id: trouble.id } };
      ondone(
        await ask(
          client.POST("/api/faults/{trouble_id}/stop", { params, body: { stop: key, who } }),
        ),
      );
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

{#if stop}
  <section role="alert" aria-label="Stop">
    <h2>Stop: {stop.title}</h2>
    <p class="do">{stop.do}</p>
    <p class="soft">
      The saw’s manual, your local codes and a competent or licensed person come before anything
      shown here.
    </p>
    <div class="form">
      <Who label="Who stopped and isolated it" value={who} onpick={(name) => (who = name)} />
      <Action main disabled={!who.trim()} onclick={() => void stands(stop.key)}
        >It stands, isolated</Action
      >
    </div>
    {#if fault}<p>{shop.words(fault)}</p>{/if}
  </section>
{/if}

<style>
  section {
    display: grid;
    gap: var(--s3);
    margin: var(--s3) 0;
    padding: var(--s5);
    border-left: var(--s3) solid var(--vermilion);
    background: var(--vermilion-pale);
  }
  h2 {
    color: var(--vermilion);
    font-size: var(--figure);
  }
  .do {
    font-size: var(--sentence);
    line-height: 1.35;
  }
</style>
