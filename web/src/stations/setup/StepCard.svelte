<script lang="ts">
  import Who from "../../parts/fields/Who.svelte";
  import { onMount } from "svelte";

  import type { SetupAnswer, SetupStep } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { day, duration, time } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Figure from "../../parts/Figure.svelte";
  import ReadingFields from "./ReadingFields.svelte";
  import StepTools from "./StepTools.svelte";
  import StepDrawing from "./draw/StepDrawing.svelte";
  import type { SetupState } from "./setup.svelte";

  interface Props {
    card: SetupState;
    setup: SetupAnswer;
    step: SetupStep;
  }
  const { card, setup, step }: Props = $props();

  let article = $state<HTMLElement>();
  // A step opened from far down the rail is brought into sight.
  onMount(() => {
    if ((article?.getBoundingClientRect().top ?? 0) < 0) article?.scrollIntoView();
  });
  let skipping = $state(false);
  let why = $state("");
  let authorised = $state("");
  let note = $state("");
  let allowedBy = $state("");
  let allowedWhy = $state("");
  const recorded = $derived(setup.steps[step.key]);
  const settled = $derived(card.settled(step.key));
  const good = $derived(settled ? undefined : setup.still_good[step.key]);
  const reserved = $derived(step.reserve !== "" && setup.reserved.includes(step.reserve));
  const place = $derived(card.steps.findIndex((s) => s.key === step.key) + 1);

  const recordWords = $derived(
    [
      recorded?.still_good && "still good from last time",
      recorded?.skipped && `skipped: ${recorded.skipped}`,
      recorded?.note,
      recorded?.who,
      recorded?.authorised_by && `authorised by ${recorded.authorised_by}`,
    ]
      .filter(Boolean)
      .join(", "),
  );

  function allow(): void {
    const named = { allowed_by: allowedBy.trim(), allowed_why: allowedWhy.trim() };
    void card.record({ key: step.key, done: true, authorised_by: authorised, note, ...named });
  }

  function done(more: { still_good?: boolean } = {}): void {
    void card.record({ key: step.key, done: true, authorised_by: authorised, note, ...more });
  }
</script>

<article bind:this={article} aria-label="Step {place}: {step.title}">
  <div class="words">
    <h2><span class="soft mono">{place}</span> {step.title}</h2>
    {#if step.figure}
      <Figure
        label=""
        value={shop.words(step.figure)}
        size="large"
        explained={setup.explained[step.key]}
      />
    {/if}
    <p class="do">{shop.words(step.do)}</p>
    <p><span class="soft">Check</span> {shop.words(step.check)}</p>
    <p>
      <span class="soft">Goes wrong</span>
      {shop.words(step.wrong)}
      <a class="fault no-print" href="#/faults?from=setup">Trouble with this step?</a>
    </p>
  </div>
  <div class="drawing">
    <StepDrawing {setup} step={step.key} means={card.means} drift={card.draft("drift").left} />
  </div>
</article>

<StepTools {card} {setup} step={step.key} />

{#if step.readings.length > 0}<ReadingFields {card} {setup} {step} />{/if}

{#if recorded?.asks_defect}
  <p class="refused" role="alert">
    The note speaks of damage: {recorded.asks_defect}.
    <a href="#/rack/{setup.band_id}">Record it with {setup.band_label}</a>, or write the note
    otherwise.
  </p>
{/if}
{#if recorded?.check_again}
  <p class="refused" role="status">
    Check again: {recorded.check_again} was done anew since, and may have moved it.
  </p>
{/if}
{#if recorded && recorded.out.length > 0}
  <div class="out" role="alert">
    {#each recorded.out as words, i (i)}<p><strong>{shop.words(words)}.</strong></p>{/each}
    {#if recorded.allowed_by}
      <p>Left so by {recorded.allowed_by}: {recorded.allowed_why}.</p>
    {:else}
      <p>The step stays open. Set it again, or say who lets it stay and why.</p>
      <div class="allow no-print">
        <Who label="Who lets it stay" value={allowedBy} onpick={(name) => (allowedBy = name)} />
        <label class="note">Why<input bind:value={allowedWhy} autocomplete="off" /></label>
        <Action disabled={!allowedBy.trim() || !allowedWhy.trim()} onclick={() => allow()}
          >Let it stay</Action
        >
      </div>
    {/if}
  </div>
{/if}
{#if card.waiting[step.key]}
  <p class="recorded" role="status">Kept here; it is sent once the server answers.</p>
{/if}
{#if settled && recordWords}<p class="recorded">Recorded: {recordWords}.</p>{/if}
{#if setup.last?.notes[step.key]}
  <p class="recorded"><span class="soft">Noted last time:</span> {setup.last.notes[step.key]}</p>
{/if}
{#if good}
  <div class="good">
    <p>
      <strong>Still good?</strong> Done {day(good.at)}
      {time(good.at)}{good.who ? ` by ${good.who}` : ""}; good for {duration(
        good.hours_left * 3600,
      )} more.
    </p>
    <Action onclick={() => done({ still_good: true })}>Leave it as it is</Action>
  </div>
{/if}
{#if card.refused}<p class="refused" role="alert">{shop.words(card.refused)}</p>{/if}

<div class="record no-print">
  <Who value={card.who} onpick={(name) => (card.who = name)} />
  {#if reserved}
    <Who
      label="Authorised person"
      value={authorised}
      only={setup.authorised}
      onpick={(name) => (authorised = name)}
    />
  {/if}
  <span class="big"
    ><Action main disabled={card.sending} onclick={() => done()}
      >{settled ? "Record again" : "Done"}</Action
    ></span
  >
  <label class="note">Note<input bind:value={note} autocomplete="off" /></label>
  {#if settled}
    <Action onclick={() => void card.record({ key: step.key, done: false })}>Not done</Action>
  {/if}
  {#if step.key !== "isolate"}
    {#if skipping}
      <label>Why skip it<input bind:value={why} /></label>
      <Action
        disabled={!why.trim()}
        onclick={() => void card.record({ key: step.key, done: false, skipped: why.trim() })}
        >Skip</Action
      >
    {:else}
      <Action onclick={() => (skipping = true)}>Skip …</Action>
    {/if}
  {/if}
</div>
{#if card.after}
  <button type="button" class="next no-print" onclick={() => card.show(card.after?.key ?? "")}>
    <span class="soft">Next</span> <strong>{card.after.title}</strong>
    {#if card.after.figure}<span class="mono">{shop.words(card.after.figure)}</span>{/if}
  </button>
{/if}

<style>
  .fault {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
  article {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(18rem, 1fr);
    gap: var(--s5);
    align-items: start;
    border-top: var(--rule) solid var(--ink);
    padding-top: var(--s3);
  }
  .words {
    display: grid;
    gap: var(--s2);
  }
  h2 {
    font-size: var(--figure);
    line-height: 1.2;
  }
  .do {
    font-size: var(--text-large);
  }
  .recorded,
  .refused {
    padding-top: var(--s2);
  }
  .refused {
    color: var(--vermilion);
    font-weight: 650;
  }
  .out {
    margin-top: var(--s3);
    padding: var(--s2) var(--s3);
    border-left: 4px solid var(--vermilion);
  }
  .allow {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: end;
  }
  .good {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
    margin-top: var(--s3);
    padding: var(--s2) var(--s3);
    background: var(--jade-pale);
  }
  .record {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: var(--s3);
    position: sticky;
    bottom: 0;
    z-index: 1;
    margin-top: var(--s4);
    padding: var(--s3) 0;
    background: var(--ground);
    border-top: var(--hair) solid var(--hairline);
  }
  .big :global(.action) {
    min-height: 3.75rem;
    min-width: 9rem;
    font-size: var(--text-large);
  }
  input {
    width: 10rem;
  }
  .note input {
    width: 14rem;
  }
  .next {
    display: flex;
    gap: var(--s3);
    align-items: center;
    width: 100%;
    min-height: 3.25rem;
    padding: 0 var(--s2);
    text-align: left;
    background: none;
    border: 0;
    border-top: var(--hair) solid var(--hairline);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .next .mono {
    margin-left: auto;
  }
  @media (max-width: 45em) {
    .record {
      position: static;
    }
    article {
      grid-template-columns: 1fr;
    }
  }
</style>
