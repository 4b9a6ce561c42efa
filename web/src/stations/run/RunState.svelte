<script lang="ts">
  import type { RunCard, SetupAnswer } from "../../api/schema";
  import { outbox } from "../../lib/sending/outbox.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import { day } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Beforehand from "../../parts/Beforehand.svelte";

  interface Props {
    card: RunCard;
    /** The set-up card of the job in hand; null before there is one. */
    setup: SetupAnswer | null;
    onbelieve: (run_id: number) => void;
  }
  const { card, setup, onbelieve }: Props = $props();
  const last = $derived(outbox.last);
  /** Steps left out of their limits by somebody's reason. */
  const leftSo = $derived(
    (setup?.card.steps ?? []).flatMap((s) => {
      const state = setup?.steps[s.key];
      if (!state?.allowed_by) return [];
      return state.out.map((words) => ({
        title: s.title,
        words,
        by: state.allowed_by,
        why: state.allowed_why,
      }));
    }),
  );
</script>

<Beforehand job_id={card.job_id} since={card} asks />
{#if !card.open}
  <p class="unready" role="status">
    <strong>Not ready to run.</strong>
    {shop.words(card.words)} A run logged now is kept, and marked so.
    <a href={currentJob.job?.setup_id ? "#/setup" : "#/plan"}
      >{currentJob.job?.setup_id ? "To the set-up card" : "To Plan"}</a
    >
  </p>
{/if}
{#if (currentJob.job?.done_pieces ?? 0) >= currentJob.draft.count}
  <p class="done" role="status">
    All pieces are logged. {card.when_done}
    <a href="#/shop/saws/{card.saw_id}">Record the tension</a>
  </p>
{/if}
{#each card.waiting.filter((w) => w.id !== last?.id) as run (run.id)}
  <p class="unready" role="status">
    Logged {day(run.at)}: <strong>{shop.words(run.words)}</strong> It moves no wear yet.
    <Action onclick={() => onbelieve(run.id)}>Yes, it was so</Action>
  </p>
{/each}
{#each leftSo as step (step.title)}
  <p class="soft left">
    {step.title}: {shop.words(step.words)}; left so by {step.by}: {step.why}.
  </p>
{/each}

<style>
  .unready {
    padding-bottom: var(--s3);
    color: var(--vermilion);
  }
  .done {
    padding-bottom: var(--s3);
    font-weight: 600;
  }
  .left {
    padding-bottom: var(--s2);
  }
</style>
