<script lang="ts">
  import Who from "../../../parts/fields/Who.svelte";
  import { ask, askPatiently, client, wordsOf } from "../../../api/client";
  import type { AlignmentAnswer, AlignmentStart, CoachAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { day, significant, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import TyreTool from "./TyreTool.svelte";
  import Truing from "../draw/Truing.svelte";

  interface Props {
    saw_id: number;
    who: string;
  }
  const { saw_id, who }: Props = $props();

  type Axis = AlignmentStart["axis"];
  type Wheel = AlignmentStart["wheel"];
  const saw = $derived(shop.saw(saw_id)?.saw);
  const horizontal = $derived(saw?.orientation === "horizontal");
  let coach = $state<CoachAnswer | null>(null);
  const wheels = $derived(coach?.wheels ?? []);
  const all = $derived(coach?.truings ?? []);
  let fresh = $state(false);
  /** The truing seen to its end on this page: its last words stay until another gap is read. */
  let seen = $state<number | null>(null);
  const current = $derived(
    all[0] && !fresh && (all[0].finished_at === null || all[0].id === seen) ? all[0] : null,
  );
  const ended = $derived(current !== null && current.finished_at !== null);
  let axis = $state<Axis>("tilt");
  let wheel = $state<Wheel | null>(null);
  let gap = $state<number | null>(null);
  let sits = $state(true);
  let turns = $state<number | null>(null);
  let authorised = $state("");
  let fault = $state<Said>("");

  async function load(): Promise<void> {
    const params = { path: { saw_id } };
    coach = await askPatiently(() => client.GET("/api/saws/{saw_id}/alignments", { params }));
  }
  // The saw names the truings; reading them asks the server.
  $effect(() => {
    load().catch((p: unknown) => notice.fail(p));
  });

  async function attempt(call: Promise<AlignmentAnswer>): Promise<void> {
    try {
      seen = (await call).id;
      fault = "";
      fresh = false;
      gap = null;
      turns = null;
      await load();
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  function begin(): void {
    const body = {
      axis,
      wheel: wheel ?? wheels[0] ?? "upper",
      gap_mm: gap ?? 0,
      sits_on_both: sits,
      who,
      authorised_by: authorised,
    };
    const params = { path: { saw_id } };
    void attempt(ask(client.POST("/api/saws/{saw_id}/alignments", { params, body })));
  }

  function moved(made: AlignmentAnswer): void {
    const params = { path: { alignment_id: made.id } };
    const body = { turns: turns ?? made.advice.turns, gap_mm: gap ?? 0 };
    void attempt(ask(client.POST("/api/alignments/{alignment_id}/moves", { params, body })));
  }

  function back(made: AlignmentAnswer): void {
    const params = { path: { alignment_id: made.id } };
    void attempt(ask(client.DELETE("/api/alignments/{alignment_id}/moves", { params })));
  }
</script>

<section aria-label="Alignment coach">
  <TyreTool {saw_id} />
  <p class="soft">
    {shop.words(coach?.how ?? "")}
  </p>
  {#if current}
    <p><strong>{current.bolt}</strong>. {current.read}. {shop.words(current.acts_words)}</p>
    <p class="next" aria-live="polite">{shop.words(current.advice.words)}</p>
    <Truing
      axis={current.axis}
      wheel={current.wheel}
      {horizontal}
      gap_mm={current.advice.gap_mm}
      turns={current.advice.turns}
      turn_words={shop.words(current.turn_words)}
      oclock={current.oclock}
    />
    <p class="soft">
      Gap now {shop.withDoubt(current.advice.gap_mm, 2 * current.advice.gap_spread_mm, "thin")}. {shop.words(
        current.known_words,
      )}
      {current.second_band}
    </p>
    <ol>
      <li>start: {shop.say(current.start_mm, "thin")}</li>
      {#each current.moves as move, i (i)}
        <li>
          {move.turns === 0
            ? "read again"
            : `${significant(Math.abs(move.turns), 3)} turn ${move.turns > 0 ? "clockwise" : "anticlockwise"}`}:
          {shop.say(move.gap_mm, "thin")}
        </li>
      {/each}
    </ol>
    <div class="line">
      {#if !ended}
        <QuantityField
          label="Turned, clockwise positive"
          kind="plain"
          value={turns ?? current.advice.turns}
          onvalue={(v) => (turns = v)}
        />
        <QuantityField
          label="Gap read after it"
          kind="thin"
          value={gap}
          onvalue={(v) => (gap = v)}
        />
        <Action main disabled={gap === null} onclick={() => moved(current)}
          >{current.advice.state === "ask" ? "Read again" : "Turned and read"}</Action
        >
      {/if}
      {#if current.moves.length > 0}
        <Action onclick={() => back(current)}>Take the last back</Action>
      {/if}
    </div>
  {:else}
    <fieldset>
      <legend>The wheel …</legend>
      {#each coach?.axes ?? [] as a (a.key)}
        <label
          ><input
            type="radio"
            name="axis"
            checked={axis === a.key}
            onchange={() => (axis = a.key)}
          />
          {a.name}</label
        >
      {/each}
    </fieldset>
    <fieldset>
      <legend>Which</legend>
      {#each wheels as w (w)}
        <label
          ><input
            type="radio"
            name="wheel"
            checked={(wheel ?? wheels[0]) === w}
            onchange={() => (wheel = w)}
          />
          {w}</label
        >
      {/each}
    </fieldset>
    <div class="line">
      <QuantityField
        label="Gap under the straightedge"
        kind="thin"
        value={gap}
        help="Positive where the wheel stands away."
        onvalue={(v) => (gap = v)}
      />
      <label class="check"
        ><input type="checkbox" bind:checked={sits} /> the band sits on both wheels</label
      >
      <Who
        label="Authorised person, if reserved"
        value={authorised}
        onpick={(name) => (authorised = name)}
      />
      <Action disabled={gap === null} onclick={begin}>Next turn?</Action>
    </div>
    {#each all.slice(0, 3) as past (past.id)}
      <p class="soft">
        {day(past.at)}: {past.wheel} wheel, {past.axis}, from {shop.say(past.start_mm, "thin")} in {past
          .moves.length} turns: {past.advice.state}.
      </p>
    {/each}
  {/if}
  {#if current}<Action onclick={() => (fresh = true)}>Read another gap</Action>{/if}
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
</section>

<style>
  section {
    display: grid;
    gap: var(--s2);
    justify-items: start;
    padding-bottom: var(--s3);
  }
  .next {
    font-size: var(--text-large);
    font-weight: 650;
  }
  ol {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    color: var(--ink-soft);
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
  }
  label {
    display: inline-flex;
    gap: var(--s2);
    align-items: center;
    min-height: var(--touch);
  }
  label input[type="radio"],
  .check input {
    width: 1.4rem;
    height: 1.4rem;
    accent-color: var(--jade);
  }
</style>
