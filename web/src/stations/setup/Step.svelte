<script lang="ts">
  import type { SetupStep, StepBody, StepState } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";

  interface Props {
    step: SetupStep;
    place: number;
    state: StepState | undefined;
    open: boolean;
    who: string;
    onopen: () => void;
    onrecord: (body: StepBody) => Promise<void>;
  }
  const { step, place, state: recorded, open, who, onopen, onrecord }: Props = $props();

  let found = $state("");
  let left = $state("");
  let skipping = $state(false);
  let why = $state("");
  let typed = $state<string | null>(null);
  const name = $derived(typed ?? who);
  const settled = $derived(Boolean(recorded?.done || recorded?.skipped));

  const recordWords = $derived(
    [
      recorded?.skipped && `skipped: ${recorded.skipped}`,
      recorded?.as_found && `found ${recorded.as_found}`,
      recorded?.as_left && `left ${recorded.as_left}`,
      recorded?.who,
    ]
      .filter(Boolean)
      .join(", "),
  );

  function save(done: boolean, skipped = ""): void {
    void onrecord({ key: step.key, done, as_found: found, as_left: left, skipped, who: name });
    skipping = false;
  }
</script>

<li data-settled={settled} data-open={open}>
  <button type="button" class="head" aria-expanded={open} onclick={onopen}>
    <span class="tick" aria-hidden="true"
      >{recorded?.done ? "✓" : recorded?.skipped ? "–" : place}</span
    >
    <strong>{step.title}</strong>
    {#if step.figure}<span class="mono short">{step.figure}</span>{/if}
    <span class="unseen">{recorded?.done ? "done" : recorded?.skipped ? "skipped" : "to do"}</span>
    {#if recorded && settled}
      <span class="soft note">
        {recordWords}
      </span>
    {/if}
  </button>
  <div class="body" class:shut={!open}>
    {#if step.figure}<p class="figure mono">{step.figure}</p>{/if}
    <p class="do">{step.do}</p>
    <p><span class="soft">Check</span> {step.check}</p>
    <p><span class="soft">Goes wrong</span> {step.wrong}</p>
    {#if open}
      <div class="record no-print">
        {#if step.reading}
          <label
            >As found, {step.reading}<input
              class="mono"
              bind:value={found}
              autocomplete="off"
            /></label
          >
          <label
            >As left, {step.reading}<input
              class="mono"
              bind:value={left}
              autocomplete="off"
            /></label
          >
        {/if}
        <label
          >Who<input
            value={name}
            oninput={(e) => (typed = e.currentTarget.value)}
            list="step-people"
            autocomplete="off"
          /></label
        >
        <datalist id="step-people"
          >{#each shop.settings?.people ?? [] as person (person)}<option value={person}
            ></option>{/each}</datalist
        >
        <Action main onclick={() => save(true)}>Done</Action>
        {#if settled}<Action onclick={() => save(false)}>Not done</Action>{/if}
        {#if step.key !== "isolate"}
          {#if skipping}
            <label>Why skip it<input bind:value={why} /></label>
            <Action disabled={!why.trim()} onclick={() => save(false, why.trim())}>Skip</Action>
          {:else}
            <Action onclick={() => (skipping = true)}>Skip …</Action>
          {/if}
        {/if}
      </div>
    {/if}
  </div>
</li>

<style>
  li {
    border-bottom: var(--hair) solid var(--hairline);
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 var(--s3);
    width: 100%;
    min-height: 3.25rem;
    padding: var(--s1) 0;
    text-align: left;
    background: none;
    border: 0;
    font-size: var(--text-large);
  }
  .tick {
    display: grid;
    place-items: center;
    width: 2rem;
    height: 2rem;
    border: var(--rule) solid var(--ink);
    font-family: var(--mono);
    font-size: var(--text);
  }
  [data-settled="true"] .tick {
    background: var(--jade);
    border-color: var(--jade);
    color: var(--on-jade);
  }
  .short {
    margin-left: auto;
  }
  [data-open="true"] .short {
    display: none;
  }
  .note {
    flex-basis: 100%;
    padding-left: 2.75rem;
    font-size: var(--text);
  }
  .body {
    padding: 0 0 var(--s4) 2.75rem;
    display: grid;
    gap: var(--s2);
  }
  .body.shut {
    display: none;
  }
  .figure {
    font-size: var(--figure-large);
    font-weight: 700;
    line-height: 1.1;
  }
  .do {
    font-size: var(--text-large);
    max-width: 40rem;
  }
  .record {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: var(--s3);
    padding-top: var(--s2);
  }
  label {
    display: grid;
    font-weight: 600;
  }
  input {
    min-height: var(--touch);
    width: 10rem;
    font-weight: 400;
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
  }
  @media print {
    .body.shut {
      display: grid;
    }
    .figure {
      display: none;
    }
    .do {
      font-size: inherit;
    }
  }
</style>
