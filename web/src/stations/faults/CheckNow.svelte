<script lang="ts">
  import { ask, client, wordsOf } from "../../api/client";
  import type { CheckNow, Measured, TroubleAnswer } from "../../api/schema";
  import { checkMarks, HIGH, WIDE } from "../../drawings/checks";
  import { shop } from "../../lib/shop.svelte";
  import { fixed, type Said } from "../../lib/figures/units";
  import { invalidFields } from "../../lib/invalidFields.svelte";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import Marks from "../../parts/pictures/Marks.svelte";
  import Hearing from "./Hearing.svelte";
  import { NEEDS } from "./known.svelte";

  interface Props {
    trouble: TroubleAnswer;
    check: CheckNow;
    busy: boolean;
    onanswer: (outcome: string) => void;
  }
  const { trouble, check, busy, onanswer }: Props = $props();

  let figures = $state<Record<string, number | null>>({});
  let measured = $state.raw<(Pick<Measured, "outcome"> & { words: Said }) | null>(null);
  let fault = $state<Said>("");
  /** What was measured; of a figure that cannot be read now, nothing. */
  const shown = $derived(invalidFields.any ? null : measured);
  const whole = $derived(check.figures.every((f) => (figures[f.key] ?? null) !== null));

  /** When the stopwatch was started. */
  let begun = $state<number | null>(null);

  function clock(): void {
    const now = performance.now();
    if (begun !== null) figures = { ...figures, time_s: Math.round((now - begun) / 100) / 10 };
    begun = begun === null ? now : null;
  }

  async function measure(): Promise<void> {
    try {
      measured = await ask(
        client.POST("/api/faults/{trouble_id}/measure", {
          params: { path: { trouble_id: trouble.id } },
          body: { check: check.key, figures: figures as Record<string, number> },
        }),
      );
      fault = "";
    } catch (problem) {
      measured = null;
      fault = wordsOf(problem);
    }
  }
</script>

<div class="check">
  <div class="what">
    <p class="do">{check.do}</p>
    <p class="how">
      <b>{fixed(check.minutes, 0)} min</b>
      <span data-isolate={check.isolate}
        >{check.isolate
          ? "isolate first"
          : check.runs
            ? "the saw runs: doors shut, guard down"
            : "nothing moves"}</span
      >
      {#if check.needs !== "nothing"}<span>with {NEEDS[check.needs] ?? check.needs}</span>{/if}
    </p>
    <p class="soft">
      {check.why.join(" ")}{#if check.asked_of}<b class="alone"
          >Answer it for “{check.asked_of}” alone.</b
        >{/if}
    </p>
  </div>
  <div class="picture"><Marks marks={checkMarks(check.key)} wide={WIDE} high={HIGH} /></div>
</div>

{#if check.cautions.length > 0}
  <p class="cautions">{check.cautions.join(" ")}</p>
{/if}
{#if check.figures.length > 0 || check.looked_up}
  <form
    class="tool"
    aria-label="Measure it"
    onsubmit={(e) => {
      e.preventDefault();
      void measure();
    }}
  >
    {#each check.figures as f (f.key)}
      <QuantityField
        label={f.label}
        kind={f.kind}
        value={figures[f.key] ?? null}
        onvalue={(v) => {
          figures = { ...figures, [f.key]: v };
          measured = null;
        }}
      />
    {/each}
    {#if check.figures.some((f) => f.key === "time_s")}
      <Action onclick={clock}
        >{begun === null ? "Start the stopwatch" : "Stop the stopwatch"}</Action
      >
    {/if}
    <Action type="submit" disabled={!whole || invalidFields.any}
      >{check.looked_up ? "Look it up" : "Which is it?"}</Action
    >
    {#if shown}<p role="status">{shop.words(shown.words)}</p>{/if}
    {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  </form>
{/if}
{#if check.needs === "microphone" && trouble.band_id !== null}
  <Hearing
    saw_id={trouble.saw_id}
    band_id={trouble.band_id}
    pluck={check.key === "pluck"}
    onoutcome={(outcome, words) => (measured = { outcome, words })}
    onhertz={(hertz) => {
      figures = { ...figures, note_Hz: hertz };
      void measure();
    }}
  />
{/if}

<ul class="answers" aria-label="Answers">
  {#each check.outcomes as o (o.key)}
    <li>
      <button
        type="button"
        disabled={busy}
        data-measured={shown?.outcome === o.key}
        onclick={() => onanswer(o.key)}
      >
        {o.words}{#if shown?.outcome === o.key}<em>as measured</em>{/if}
      </button>
    </li>
  {/each}
</ul>
{#if check.needs === "scrap" && trouble.job_id !== null}
  <p><a class="away" href="#/inspect/{trouble.job_id}">Read its face in Inspect</a></p>
{/if}
<div class="else">
  <Action disabled={busy} onclick={() => onanswer("could_not_tell")}>Could not tell</Action>
  <Action disabled={busy} onclick={() => onanswer("skip")}>Skip this one</Action>
</div>

<style>
  .check {
    display: flex;
    gap: var(--s5);
    align-items: start;
  }
  .what {
    flex: 1;
    display: grid;
    gap: var(--s2);
  }
  .do {
    font-size: var(--sentence);
    line-height: 1.3;
  }
  .how {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
  }
  [data-isolate="true"] {
    font-weight: 650;
    color: var(--vermilion);
  }
  .picture {
    width: 9.5rem;
    flex: none;
  }
  .alone {
    margin-left: 0.4em;
  }
  .cautions {
    padding: var(--s2) var(--s3);
    border-left: var(--s2) solid var(--brass);
  }
  .tool {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3) var(--s4);
    align-items: end;
    padding: var(--s3) 0;
  }
  .tool p {
    flex-basis: 100%;
  }
  .answers {
    display: grid;
    gap: var(--s2);
    padding-top: var(--s3);
  }
  .answers button {
    width: 100%;
    min-height: 3.5rem;
    padding: var(--s2) var(--s4);
    display: flex;
    justify-content: space-between;
    gap: var(--s3);
    align-items: center;
    background: var(--paper);
    border: var(--rule) solid var(--ink);
    font-size: var(--text-large);
    text-align: left;
  }
  .answers button:hover:not(:disabled) {
    background: var(--jade-pale);
  }
  .answers button[data-measured="true"] {
    background: var(--jade-pale);
    border-color: var(--jade);
    font-weight: 650;
  }
  em {
    font-size: var(--text-small);
    font-style: normal;
  }
  .away {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
  .else {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    padding-top: var(--s3);
  }
  @media (max-width: 30em) {
    .check {
      flex-direction: column;
      gap: var(--s3);
    }
    .picture {
      width: 7rem;
    }
  }
</style>
