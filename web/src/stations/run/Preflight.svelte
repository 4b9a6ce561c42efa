<script lang="ts">
  import type { PreflightRow, RunInput } from "../../api/schema";

  type Keys = NonNullable<RunInput["preflight"]>;
  interface Props {
    /** What is tapped before this saw starts. */
    all: readonly PreflightRow[];
    /** What was tapped for this lot. */
    done: Keys;
    ondone: (done: Keys) => void;
  }
  const { all, done, ondone }: Props = $props();
  const whole = $derived(all.length > 0 && done.length >= all.length);

  function tap(key: string): void {
    const known = key as Keys[number];
    ondone(done.includes(known) ? done.filter((k) => k !== known) : [...done, known]);
  }
</script>

<fieldset data-whole={whole}>
  <legend>{whole ? "Before the start: all four, for this lot" : "Before the start"}</legend>
  <div>
    {#each all as check (check.key)}
      <button
        type="button"
        aria-pressed={done.includes(check.key as Keys[number])}
        title={check.why}
        onclick={() => tap(check.key)}
      >
        <span class="box" aria-hidden="true"
          >{done.includes(check.key as Keys[number]) ? "✓" : ""}</span
        >
        <span
          >{check.name}{#if !whole}<small>{check.why}</small>{/if}</span
        >
      </button>
    {/each}
  </div>
</fieldset>

<style>
  legend {
    padding-bottom: var(--s2);
  }
  fieldset {
    padding-bottom: var(--s4);
  }
  div {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(13rem, 100%), 1fr));
    gap: var(--s2);
  }
  button {
    display: flex;
    gap: var(--s3);
    align-items: center;
    min-height: 3.25rem;
    padding: var(--s1) var(--s3);
    text-align: left;
    border: var(--hair) solid var(--ink);
  }
  [data-whole="true"] button {
    min-height: var(--touch);
    border-color: var(--hairline);
  }
  button[aria-pressed="true"] {
    background: var(--jade-pale);
  }
  .box {
    width: 1.5rem;
    height: 1.5rem;
    flex: none;
    border: var(--rule) solid var(--ink);
    display: grid;
    place-items: center;
    font-weight: 700;
  }
  small {
    display: block;
    font-size: var(--text-small);
    color: var(--ink-soft);
  }
</style>
