<script lang="ts">
  import { ask, client } from "../../../api/client";
  import type { BandAnswer, SharpenCard } from "../../../api/schema";
  import { choicesOf } from "../../../lib/forms";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";
  import Choices from "../../../parts/fields/Choices.svelte";

  interface Props {
    band: BandAnswer;
    onsharpened: (way: "in_house" | "on_saw") => Promise<void>;
  }
  const { band, onsharpened }: Props = $props();

  let way = $state<"in_house" | "on_saw">("in_house");
  let card = $state<SharpenCard | null>(null);
  let done = $state<string[]>([]);
  const left = $derived(card?.steps.find((s) => !done.includes(s.key)) ?? null);

  $effect(() => {
    const params = { path: { band_id: band.id }, query: { way } };
    done = [];
    ask(client.GET("/api/bands/{band_id}/sharpen-card", { params }))
      .then((found) => (card = found))
      .catch((p: unknown) => notice.fail(p));
  });
</script>

<section aria-label="Sharpening {band.label}">
  <h2>Sharpen <span class="mono">{band.label}</span> here</h2>
  <Choices
    legend="Where"
    options={choicesOf<typeof way>("hand_way")}
    chosen={way}
    onchoose={(key) => (way = key)}
  />
  {#if card?.refused}
    <p role="alert">{card.refused}</p>
  {:else if card}
    <ol class="rows">
      {#each card.steps as step (step.key)}
        <li data-done={done.includes(step.key)} aria-current={step === left ? "step" : undefined}>
          <strong>{step.title}</strong>
          {#if step === left}
            <span>{shop.words(step.do)}</span>
            <span class="soft">Right when: {shop.words(step.check)}</span>
            {#if step.caution}<strong class="caution">{step.caution}</strong>{/if}
            <Action main onclick={() => (done = [...done, step.key])}>{step.title}: done</Action>
          {/if}
        </li>
      {/each}
    </ol>
    {#if !left}
      <Action main onclick={() => void onsharpened(way)}>Note it as sharpened</Action>
    {/if}
  {/if}
</section>

<style>
  ol {
    max-width: 46rem;
  }
  li {
    gap: var(--s2);
    justify-items: start;
    padding: var(--s2) 0;
  }
  li[data-done="true"] {
    color: var(--ink-soft);
  }
  .caution {
    color: var(--vermilion);
  }
</style>
