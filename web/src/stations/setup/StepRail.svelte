<script lang="ts">
  import type { SetupState } from "./setup.svelte";

  interface Props {
    card: SetupState;
  }
  const { card }: Props = $props();

  function mark(key: string, place: number): string {
    const state = card.answer?.steps[key];
    if (state?.done && !card.settled(key)) return "!";
    if (state?.still_good && state.done) return "≈";
    if (state?.done) return "✓";
    return state?.skipped ? "–" : String(place);
  }

  function words(key: string): string {
    const state = card.answer?.steps[key];
    if (state?.check_again) return `check again, since ${state.check_again.toLowerCase()}`;
    if (state?.done && !card.settled(key)) return "out of its limits";
    if (state?.done) return state.still_good ? "still good from last time" : "done";
    if (state?.skipped) return "skipped";
    return card.answer?.still_good[key] ? "may still be good" : "to do";
  }

  let rail = $state<HTMLElement>();
  // On a narrow screen the rail is a strip: the step shown is brought into it.
  $effect(() => {
    const key = card.current?.key;
    const item = rail?.querySelector<HTMLElement>(`[data-step="${key ?? ""}"]`);
    if (rail && item && rail.scrollWidth > rail.clientWidth) {
      rail.scrollLeft = item.offsetLeft - rail.clientWidth / 3;
    }
  });
</script>

<ol bind:this={rail} aria-label="Steps" class="no-print">
  {#each card.steps as step, i (step.key)}
    <li>
      <button
        type="button"
        data-step={step.key}
        data-settled={card.settled(step.key)}
        aria-current={card.current?.key === step.key ? "step" : undefined}
        onclick={() => card.show(step.key)}
      >
        <span class="tick" aria-hidden="true">{mark(step.key, i + 1)}</span>
        <span>{step.title}</span>
        <span class="unseen">, {words(step.key)}</span>
      </button>
    </li>
  {/each}
</ol>

<style>
  button {
    position: relative;
    display: flex;
    gap: var(--s2);
    align-items: center;
    width: 100%;
    min-height: var(--touch);
    padding: 0 var(--s2);
    border-bottom: var(--hair) solid var(--hairline);
    text-align: left;
  }
  button[aria-current="step"] {
    background: var(--jade-pale);
    font-weight: 650;
    border-left: 4px solid var(--brass);
  }
  .tick {
    display: grid;
    place-items: center;
    flex: none;
    width: 1.75rem;
    height: 1.75rem;
    border: var(--rule) solid var(--ink);
    font-family: var(--mono);
    font-size: var(--text-small);
  }
  [data-settled="true"] .tick {
    background: var(--jade);
    border-color: var(--jade);
    color: var(--on-jade);
  }
  @media (max-width: 62.5em) {
    ol {
      display: flex;
      overflow-x: auto;
      scroll-snap-type: x proximity;
      padding-bottom: var(--s2);
    }
    li {
      flex: none;
      scroll-snap-align: start;
    }
    button {
      white-space: nowrap;
      min-height: 3.25rem;
      padding: 0 var(--s3);
    }
    button[aria-current="step"] {
      border-left: 0;
      border-bottom: 4px solid var(--brass);
    }
  }
</style>
