<script lang="ts">
  import { ask, client, wordsOf } from "../../../api/client";
  import type { BandAnswer, WeighedInput } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { recall, remember } from "../../../lib/storage";
  import type { Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Who from "../../../parts/fields/Who.svelte";

  interface Props {
    band: BandAnswer;
    ondone: () => void;
  }
  const { band, ondone }: Props = $props();

  interface Standard {
    material: string;
    height_mm: number;
    length_mm: number;
    weight_kg: number;
  }
  const KEY = "rack.weighed";
  const USUAL: Standard = {
    material: "red_oak_dry",
    height_mm: 50,
    length_mm: 300,
    weight_kg: 4,
  };
  let standard = $state<Standard>(recall<Standard>(KEY, USUAL));
  let seconds = $state<number | null>(null);
  let who = $state("");
  let began = $state<number | null>(null);
  let fault = $state<Said>("");
  const woods = $derived((shop.reference?.materials ?? []).filter((m) => !m.is_metal));

  function watch(): void {
    if (began === null) {
      began = performance.now();
      seconds = null;
    } else {
      seconds = Math.round((performance.now() - began) / 100) / 10;
      began = null;
    }
  }

  async function save(): Promise<void> {
    if (seconds === null || band.mounted_saw_id === null) return;
    const body: WeighedInput = { ...standard, seconds, who, saw_id: band.mounted_saw_id };
    try {
      await ask(
        client.POST("/api/bands/{band_id}/weighed", {
          params: { path: { band_id: band.id } },
          body,
        }),
      );
      remember(KEY, standard);
      fault = "";
      seconds = null;
      ondone();
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<details class="no-print">
  <summary>Weigh it: how fast a hanging weight feeds an offcut</summary>
  {#if band.mounted_saw_id === null}
    <p class="soft">Mount it first: the offcut is cut on the saw, at a card’s tension and speed.</p>
  {:else}
    <ol>
      <li>
        The same offcut every time: one wood, one height, planed, kept dry. The first cut on a keen
        edge is what later ones are held against.
      </li>
      <li>
        Guard down to the offcut, fence set, a cord over a pulley at the table’s edge, the weight
        hanging free. Hands off, stand aside, stop the saw before clearing.
      </li>
      <li>Time it from the first tooth to the last.</li>
    </ol>
    <div class="fields">
      <label
        >Wood<select bind:value={standard.material}>
          {#each woods as wood (wood.key)}<option value={wood.key}>{wood.name}</option>{/each}
        </select></label
      >
      <QuantityField
        label="Height"
        kind="length"
        value={standard.height_mm}
        onvalue={(v) => (standard.height_mm = v ?? USUAL.height_mm)}
      />
      <QuantityField
        label="Length cut"
        kind="length"
        value={standard.length_mm}
        onvalue={(v) => (standard.length_mm = v ?? USUAL.length_mm)}
      />
      <QuantityField
        label="Weight, kg"
        kind="plain"
        value={standard.weight_kg}
        onvalue={(v) => (standard.weight_kg = v ?? USUAL.weight_kg)}
      />
      <QuantityField label="Seconds" kind="plain" value={seconds} onvalue={(v) => (seconds = v)} />
      <Action onclick={watch}>{began === null ? "Start the watch" : "Stop the watch"}</Action>
      <Who value={who} onpick={(name) => (who = name)} />
      <Action main disabled={seconds === null} onclick={() => void save()}>Record</Action>
    </div>
    {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {/if}
</details>

<style>
  ol {
    list-style: decimal;
    padding-left: 1.4em;
    max-width: 46rem;
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    padding: var(--s3) 0;
  }
  select {
    max-width: 16rem;
  }
</style>
