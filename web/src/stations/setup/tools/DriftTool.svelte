<script lang="ts">
  import { ask, client, wordsOf } from "../../../api/client";
  import type { DriftAnswer, SetupAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { day, significant, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import type { SetupState } from "../setup.svelte";

  interface Props {
    card: SetupState;
    setup: SetupAnswer;
  }
  const { card, setup }: Props = $props();

  let answer = $state<DriftAnswer | null>(null);
  let fault = $state<Said>("");
  const left = $derived(card.draft("drift").left);

  async function look(keep: boolean): Promise<void> {
    const params = { path: { setup_id: setup.id } };
    const body = {
      offset_mm: left.offset_mm ?? 0,
      run_mm: left.run_mm ?? 300,
      keep,
      who: card.who,
    };
    try {
      answer = await ask(client.POST("/api/setups/{setup_id}/drift", { params, body }));
      fault = "";
      if (answer.change_id !== null) {
        notice.canUndo("Kept with the band.", answer.change_id, () => look(false));
      }
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<section aria-label="Drift of this band">
  <p class="soft">
    Below, as left: how far its edge swung off the line (right is positive), and over what run.
  </p>
  <Action disabled={left.offset_mm === undefined} onclick={() => void look(false)}
    >What does it say?</Action
  >
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if answer}
    <div class="verdict" data-stop={answer.verdict.stop} aria-live="polite">
      <p>
        <strong class="mono"
          >{shop.withDoubt(
            answer.verdict.angle_deg,
            answer.verdict.uncertainty_deg,
            "plain",
          )}°</strong
        >
        {#if answer.verdict.fence_shift_mm !== null}
          · fence <strong class="mono"
            >{shop.say(Math.abs(answer.verdict.fence_shift_mm), "thin")}</strong
          > at its bolts
        {/if}
      </p>
      <p>
        <strong>{shop.words(answer.verdict.words)}</strong>
        {shop.words(answer.verdict.trend_words)}
      </p>
      {#if answer.earlier.length > 0}
        <p class="soft">
          This band before: {answer.earlier
            .map((t) => `${significant(t.angle_deg, 2)}° ${day(t.at)}`)
            .join(", ")}
        </p>
      {/if}
      {#if answer.kept_id === null}
        <Action onclick={() => void look(true)}>Keep it with the band</Action>
      {/if}
    </div>
  {/if}
</section>

<style>
  section {
    padding-top: var(--s3);
  }
  .verdict {
    padding: var(--s2) 0 var(--s2) var(--s3);
    border-left: 4px solid var(--jade);
    margin-top: var(--s2);
  }
  .verdict[data-stop="true"] {
    border-left-color: var(--vermilion);
    background: var(--vermilion-pale);
  }
</style>
