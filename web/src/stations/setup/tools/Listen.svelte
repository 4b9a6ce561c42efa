<script lang="ts">
  import { asBytes } from "../../../lib/bytes";
  import { ask, client, wordsOf } from "../../../api/client";
  import type { ListenAnswer, SetupAnswer } from "../../../api/schema";
  import { record } from "../../../lib/microphone";
  import { shop } from "../../../lib/shop.svelte";
  import { percent, significant, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import Spectrum from "../draw/Spectrum.svelte";

  interface Props {
    setup: SetupAnswer;
    /** A stand-in for the microphone is chosen. */
    simulated: boolean;
    onheard: (hertz: number) => void;
  }
  const { setup, simulated, onheard }: Props = $props();

  let loud = $state<number | null>(null);
  let fault = $state<Said>("");
  let answer = $state<ListenAnswer | null>(null);
  const params = $derived({ path: { setup_id: setup.id } });

  async function take(call: Promise<ListenAnswer>): Promise<void> {
    try {
      answer = await call;
      fault = "";
      onheard(answer.heard.frequency_Hz);
    } catch (problem) {
      answer = null;
      fault = wordsOf(problem);
    }
  }

  function send(sound: Blob): Promise<ListenAnswer> {
    return ask(
      client.POST("/api/setups/{setup_id}/listen", {
        params,
        ...asBytes(sound, "audio/wav"),
      }),
    );
  }

  async function listen(): Promise<void> {
    loud = 0;
    fault = "";
    try {
      const sound = await record((l) => (loud = Math.max(l, 0)));
      loud = null;
      await take(send(sound));
    } catch (problem) {
      loud = null;
      fault = wordsOf(problem);
    }
  }

  async function file(event: Event): Promise<void> {
    const input = event.currentTarget as HTMLInputElement;
    const chosen = input.files?.[0];
    input.value = "";
    if (chosen) await take(send(new Blob([chosen], { type: "audio/wav" })));
  }
</script>

<div class="listen">
  <p>
    Guides off, microphone close to the middle of the span, pluck once. Wanted:
    <strong class="mono"
      >{setup.card.tension.note_Hz === null
        ? "no single span to pluck"
        : `${significant(setup.card.tension.note_Hz, 3)} Hz`}</strong
    >
    {setup.card.tension.note_name ?? ""}
  </p>
  <div class="buttons">
    <Action main disabled={loud !== null} onclick={() => void listen()}
      >{loud === null ? "Listen" : "Listening: pluck once …"}</Action
    >
    <label class="file"
      >A recording (WAV)<input
        type="file"
        accept=".wav,.flac,audio/wav,audio/flac"
        onchange={(e) => void file(e)}
      /></label
    >
    {#if simulated}
      <Action
        onclick={() => void take(ask(client.POST("/api/setups/{setup_id}/record", { params })))}
        >Simulated pluck</Action
      >
    {/if}
    {#if loud !== null}
      <meter min="0" max="0.5" value={loud} aria-label="Level"></meter>
    {/if}
  </div>
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if answer}
    <p aria-live="polite">
      Heard <strong class="mono">{significant(answer.heard.frequency_Hz, 4)} Hz</strong>
      {answer.heard.note}{answer.wanted_Hz === null
        ? ""
        : `, wanted ${significant(answer.wanted_Hz, 4)} Hz ${answer.wanted_note ?? ""}`}; it
      explains
      {percent(answer.heard.confidence)} of the sound.
      {#if answer.reading}This note is {shop.say(answer.reading.stress_MPa, "stress")}.{:else}
        {shop.words(answer.why_no_stress)}{/if}
    </p>
    <Spectrum heard={answer.heard} wanted_Hz={answer.wanted_Hz} />
  {/if}
</div>

<style>
  .listen {
    display: grid;
    gap: var(--s2);
  }
  .buttons {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
  }
  .file {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    padding: 0 var(--s3);
    border-bottom: var(--rule) solid var(--jade);
    cursor: pointer;
  }
  .file:focus-within {
    outline: 3px solid var(--focus);
  }
  .file input {
    position: absolute;
    width: 1px;
    height: 1px;
    opacity: 0;
  }
</style>
