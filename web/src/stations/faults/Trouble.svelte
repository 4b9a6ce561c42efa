<script lang="ts">
  import { ask, askPatiently, client, wordsOf } from "../../api/client";
  import type { SignsInput, TroubleAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall } from "../../lib/storage";
  import { day, fixed, type Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Bars from "./Bars.svelte";
  import BarsBrief from "./BarsBrief.svelte";
  import CheckNow from "./CheckNow.svelte";
  import FaultPages from "./FaultPages.svelte";
  import { DEGREES, known } from "./known.svelte";
  import Records from "./Records.svelte";
  import Remedy from "./Remedy.svelte";
  import Stops from "./Stops.svelte";
  import Story from "./Story.svelte";

  const { params }: { params: { id: string } } = $props();
  const id = $derived(Number(params.id));

  let trouble = $state.raw<TroubleAnswer | null>(null);
  let fault = $state<Said>("");
  let busy = $state(false);
  /** One check more, although it is good enough to act; or acting, although it is not. */
  let asking = $state<boolean | null>(null);
  let ending = $state(false);
  let adding = $state("");

  async function load(): Promise<void> {
    await known.load();
    const path = { trouble_id: id };
    trouble = await askPatiently(() =>
      client.GET("/api/faults/{trouble_id}", { params: { path } }),
    );
  }
  // Another address is another trouble, which is asked for.
  $effect(() => {
    if (id) load().catch((p: unknown) => (fault = wordsOf(p)));
  });

  const ended = $derived(trouble?.state === "closed" || trouble?.state === "gone");
  const stopped = $derived(
    trouble?.stops.some((s) => !trouble?.acknowledged[s.key]) && trouble.state === "open",
  );
  const acts = $derived(
    trouble !== null &&
      (trouble.state === "watching" ||
        trouble.check === null ||
        (asking === null ? trouble.acting.act : !asking)),
  );

  async function go(call: Promise<TroubleAnswer>): Promise<void> {
    busy = true;
    try {
      trouble = await call;
      asking = null;
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    } finally {
      busy = false;
    }
  }
  const path = $derived({ params: { path: { trouble_id: id } } });

  function answer(outcome: string): void {
    const check = trouble?.check?.key;
    if (!check) return;
    const body = { check, outcome, who: recall("who", "") };
    void go(ask(client.POST("/api/faults/{trouble_id}/answer", { ...path, body })));
  }
  const back = () => go(ask(client.POST("/api/faults/{trouble_id}/back", path)));
  function tell(key: string, degree: string): void {
    const symptoms = { [key]: degree } as SignsInput["symptoms"];
    adding = "";
    void go(ask(client.POST("/api/faults/{trouble_id}/signs", { ...path, body: { symptoms } })));
  }
  function aside(reads: string[]): void {
    void go(ask(client.POST("/api/faults/{trouble_id}/aside", { ...path, body: { reads } })));
  }
  async function choose(check: string): Promise<void> {
    const params = { path: { trouble_id: id }, query: { check } };
    await go(ask(client.GET("/api/faults/{trouble_id}", { params })));
    asking = true;
    globalThis.scrollTo?.(0, 0);
  }
  function done(next: TroubleAnswer, said: string): void {
    trouble = next;
    asking = null;
    if (next.change_id !== null && next.change_id !== undefined) {
      notice.canUndo(said, next.change_id, load);
    }
  }
</script>

{#if trouble}
  <FaultPages title={trouble.symptoms.map((s) => s.name).join(", ")} />
  <p class="head soft">
    {trouble.saw}{#if trouble.band_id !== null}, band
      <a href="#/rack/{trouble.band_id}">{trouble.band}</a>{/if}{trouble.job
      ? `, at ${trouble.job}`
      : ""}; told {day(trouble.opened_at)}{trouble.who ? ` by ${trouble.who}` : ""}; so far
    {fixed(trouble.minutes, 0)} min, {shop.money(trouble.money)}.
  </p>
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if ended}
    <Story {trouble} />
    <div class="foot no-print">
      <Action onclick={() => globalThis.print()}>Print this story</Action>
    </div>
  {:else if stopped}
    <Stops {trouble} ondone={(next) => (trouble = next)} />
  {:else}
    <div class="two">
      <section aria-label="Now">
        <BarsBrief causes={trouble.causes} />
        {#if acts}
          {#key ending}<Remedy {trouble} ends={ending} ondone={done} />{/key}
        {:else if trouble.check}
          <h2 class="now">Check now</h2>
          {#key trouble.check.key + trouble.path.length}
            <CheckNow {trouble} check={trouble.check} {busy} onanswer={answer} />
          {/key}
          <p class="soft act">{trouble.acting.words}</p>
        {/if}
        <div class="foot no-print">
          {#if acts && trouble.check && trouble.state === "open"}
            <Action
              onclick={() => {
                asking = true;
                ending = false;
              }}>One check more instead</Action
            >
          {/if}
          {#if trouble.path.length > 0}<Action disabled={busy} onclick={() => void back()}
              >Back one step</Action
            >{/if}
          {#if !acts}
            <Action onclick={() => (asking = false)}>Act on the first</Action>
            <Action
              onclick={() => {
                asking = false;
                ending = true;
              }}>It stopped by itself</Action
            >
          {/if}
        </div>
      </section>
      <section aria-label="What it most likely is" aria-live="polite">
        <h2>Most likely</h2>
        <Bars causes={trouble.causes} none={trouble.none_listed} />
        <Records {trouble} onaside={aside} onask={choose} />
        <details>
          <summary>Another sign, or told otherwise</summary>
          <div class="signs">
            {#each trouble.symptoms as s (s.key)}
              <label
                >{s.name}<select
                  value={s.degree}
                  onchange={(e) => tell(s.key, e.currentTarget.value)}
                >
                  {#each DEGREES as [d, words] (d)}<option value={d}>{words}</option>{/each}
                </select></label
              >
            {/each}
            <label
              >Also<select bind:value={adding} onchange={() => adding && tell(adding, "clear")}>
                <option value="">–</option>
                {#each known.all?.signs ?? [] as s (s.key)}
                  {#if !trouble.symptoms.some((t) => t.key === s.key)}<option value={s.key}
                      >{s.name}</option
                    >{/if}
                {/each}
              </select></label
            >
          </div>
        </details>
        {#if trouble.path.length > 0}
          <details>
            <summary>The way so far: {trouble.path.length}</summary>
            <Story {trouble} />
          </details>
        {/if}
      </section>
    </div>
  {/if}
{:else if fault}
  <FaultPages title="Faults" />
  <p role="alert">{shop.words(fault)}</p>
{:else}
  <p class="soft">Reading it …</p>
{/if}

<style>
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1.35fr) minmax(0, 1fr);
    gap: var(--s6);
    padding-top: var(--s3);
  }
  .now {
    padding-bottom: var(--s2);
  }
  .act {
    padding-top: var(--s3);
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    padding-top: var(--s4);
  }
  .signs {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
  }
  select {
    max-width: 13rem;
  }
  @media (max-width: 56.25em) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
