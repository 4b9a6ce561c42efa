<script lang="ts">
  import { askPatiently, client } from "../../../api/client";
  import type { SetupAnswer, VibrationAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { significant } from "../../../lib/figures/units";

  interface Props {
    setup: SetupAnswer;
  }
  const { setup }: Props = $props();
  let answer = $state<VibrationAnswer | null>(null);

  // The card names what runs; the vibration card is asked for once it is shown.
  $effect(() => {
    const params = { path: { setup_id: setup.id } };
    askPatiently(() => client.GET("/api/setups/{setup_id}/vibration", { params }))
      .then((a) => (answer = a))
      .catch((p: unknown) => notice.fail(p));
  });
  const hertz = (value: number | null | undefined) =>
    value === null || value === undefined ? "–" : `${significant(value, 3)} Hz`;
</script>

{#if answer}
  <section aria-label="What shakes">
    <h3>What shakes at {shop.say(answer.speed_m_s, "speed")}</h3>
    <p><strong>{shop.words(answer.verdict)}</strong></p>
    {#each answer.card.meetings.slice(0, 4) as meeting, i (i)}
      <p class="soft">
        {shop.words(meeting.source.name)}
        {hertz(meeting.source.hertz)} against {meeting.note.name}
        {hertz(meeting.note.hertz)}, {significant(100 * Math.abs(meeting.apart_share), 2)} % apart
      </p>
    {/each}
    {#if answer.remedies.length > 0}<p>{shop.words(answer.remedies.join("; "))}.</p>{/if}
    <dl>
      <div>
        <dt>wheel turns</dt>
        <dd class="mono">{hertz(answer.card.wheel_Hz)}</dd>
      </div>
      <div>
        <dt>weld passes</dt>
        <dd class="mono">{hertz(answer.card.band_Hz)}</dd>
      </div>
      <div>
        <dt>teeth</dt>
        <dd class="mono">{hertz(answer.card.tooth_Hz)}</dd>
      </div>
      <div>
        <dt>free span, still and running</dt>
        <dd class="mono">
          {hertz(answer.card.free_still_Hz)}, {hertz(answer.card.free_running_Hz)}
        </dd>
      </div>
      <div>
        <dt>between the guides, bending</dt>
        <dd class="mono">{answer.card.guide_bending_Hz.map((f) => hertz(f)).join(", ")}</dd>
      </div>
      <div>
        <dt>between the guides, twisting</dt>
        <dd class="mono">{answer.card.guide_twisting_Hz.map((f) => hertz(f)).join(", ")}</dd>
      </div>
    </dl>
    <p class="soft">
      Warned within 5 %. Guide span {shop.say(answer.guide_span_mm, "length")}; a string’s and a
      strip’s own notes.
    </p>
  </section>
{/if}

<style>
  section {
    padding-top: var(--s3);
  }
  h3 {
    font-size: var(--text);
  }
  dl div {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 var(--s3);
    border-bottom: var(--hair) solid var(--hairline);
    padding: var(--s1) 0;
  }
</style>
