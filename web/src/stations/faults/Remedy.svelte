<script lang="ts">
  import { ask, client, wordsOf } from "../../api/client";
  import type { TroubleAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { recall, remember } from "../../lib/storage";
  import { day, fixed, type Said } from "../../lib/figures/units";
  import { invalidFields } from "../../lib/invalidFields.svelte";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import Who from "../../parts/fields/Who.svelte";
  import { known, placeOf } from "./known.svelte";

  interface Props {
    trouble: TroubleAnswer;
    /** Begins at closing it: it stopped by itself. */
    ends?: boolean;
    ondone: (trouble: TroubleAnswer, said: string) => void;
  }
  const { trouble, ends = false, ondone }: Props = $props();

  let who = $state(recall("who", ""));
  let minutes = $state<number | null>(null);
  // svelte-ignore state_referenced_locally
  let closing = $state(ends);
  let causes = $state<string[]>([]);
  let spoiled = $state<number | null>(null);
  let note = $state("");
  let fault = $state<Said>("");
  const params = $derived({ path: { trouble_id: trouble.id } });
  const ids = $derived({ saw: trouble.saw_id, band: trouble.band_id, job: trouble.job_id });
  const mended = $derived(known.all?.causes.find((c) => c.key === trouble.remedy));
  const place = $derived(placeOf(trouble.acting.opens, ids));
  const likely = $derived(trouble.causes.map((c) => ({ key: c.key, name: c.name })));
  const others = $derived(
    (known.all?.causes ?? []).filter((c) => !likely.some((l) => l.key === c.key)),
  );

  async function take(call: Promise<TroubleAnswer>, said: string): Promise<void> {
    remember("who", who);
    try {
      ondone(await call, said);
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
  const done = () =>
    take(
      ask(
        client.POST("/api/faults/{trouble_id}/remedy", {
          params,
          body: { cause: trouble.acting.cause, minutes, who },
        }),
      ),
      "Done: the next run is asked whether it went.",
    );
  const still = () =>
    take(ask(client.POST("/api/faults/{trouble_id}/still", { params })), "On with it.");
  const close = (gone: boolean) =>
    take(
      ask(
        client.POST("/api/faults/{trouble_id}/close", {
          params,
          body: { causes: gone ? causes : [], gone, spoiled, note, who },
        }),
      ),
      "The trouble is closed.",
    );

  function begin(): void {
    closing = true;
    causes = trouble.remedy ? [trouble.remedy] : [];
  }
</script>

{#if closing}
  <section aria-label="Close it">
    <h2>What was it, truly?</h2>
    <p class="soft">What you name here teaches. Nobody found out? Leave all open.</p>
    <div class="causes">
      {#each likely as c (c.key)}
        <label class="tick"
          ><input
            type="checkbox"
            checked={causes.includes(c.key)}
            onchange={() =>
              (causes = causes.includes(c.key)
                ? causes.filter((k) => k !== c.key)
                : [...causes, c.key])}
          />{c.name}</label
        >
      {/each}
      <label
        >Something else<select
          value={causes.find((k) => others.some((o) => o.key === k)) ?? ""}
          onchange={(e) => {
            const kept = causes.filter((k) => likely.some((l) => l.key === k));
            causes = e.currentTarget.value ? [...kept, e.currentTarget.value] : kept;
          }}
        >
          <option value="">–</option>
          {#each others as o (o.key)}<option value={o.key}>{o.name}</option>{/each}
        </select></label
      >
    </div>
    <div class="form">
      <QuantityField
        label="Stock spoiled, {shop.currency}"
        kind="plain"
        value={spoiled}
        onvalue={(v) => (spoiled = v)}
      />
      <label>A note<input bind:value={note} maxlength="400" /></label>
      <Who value={who} onpick={(name) => (who = name)} />
      <Action main disabled={invalidFields.any} onclick={() => void close(true)}
        >{causes.length > 0 ? "Close it" : "Close it: it went by itself"}</Action
      >
      <Action onclick={() => void close(false)}>Still there: stop looking</Action>
      <Action onclick={() => (closing = false)}>Not yet</Action>
    </div>
  </section>
{:else if trouble.state === "watching"}
  <section aria-label="Did it go?">
    <h2>{mended?.name ?? trouble.remedy}: mended. Did it go?</h2>
    <p>
      {trouble.ran_since
        ? "The saw has cut since."
        : "Cut a trial or the next piece first: the next run asks too."}
    </p>
    <div class="form">
      <Action main onclick={begin}>It went</Action>
      <Action onclick={() => void still()}>Still there</Action>
    </div>
  </section>
{:else}
  <section aria-label="Remedy" data-act={trouble.acting.act}>
    <p><strong>{trouble.acting.words}</strong></p>
    <p class="do">{trouble.acting.remedy}</p>
    {#if trouble.clears.length > 0}
      <p>Should go with it: {trouble.clears.join(", ").toLowerCase()}.</p>
    {/if}
    <p class="soft">
      About {fixed(trouble.acting.minutes, 0)} min{#if place}, at <a href={place.href}
          >{place.name}</a
        >{/if}.
    </p>
    <div class="form">
      <QuantityField
        label="Minutes it took"
        kind="plain"
        value={minutes}
        onvalue={(v) => (minutes = v)}
      />
      <Who value={who} onpick={(name) => (who = name)} />
      <Action main disabled={invalidFields.any} onclick={() => void done()}>Done</Action>
      <Action onclick={begin}>It stopped by itself</Action>
    </div>
  </section>
{/if}
{#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
{#if trouble.remedied_at}<p class="soft">Remedy done {day(trouble.remedied_at)}.</p>{/if}

<style>
  section {
    display: grid;
    gap: var(--s2);
    padding: var(--s3) 0;
  }
  .do {
    font-size: var(--sentence);
    line-height: 1.3;
  }
  .form,
  .causes {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3) var(--s4);
    align-items: end;
  }
  label {
    gap: var(--s1);
  }
  .tick {
    display: flex;
    gap: var(--s2);
    align-items: center;
    min-height: var(--touch);
  }
  .tick input {
    width: 1.4rem;
    height: 1.4rem;
  }
</style>
