<script lang="ts">
  import { ask, client, wordsOf } from "../../api/client";
  import type { EarAnswer, Tapped } from "../../api/schema";
  import { asBytes } from "../../lib/bytes";
  import { record, recordFor } from "../../lib/microphone";
  import { shop } from "../../lib/shop.svelte";
  import { significant, type Said } from "../../lib/figures/units";
  import { invalidFields } from "../../lib/invalidFields.svelte";
  import Action from "../../parts/Action.svelte";

  interface Props {
    saw_id: number;
    band_id: number;
    speed_m_s?: number | null;
    /** Listens for one pluck instead of a running saw. */
    pluck?: boolean;
    /** Keeping it as the sound of a good run is offered. */
    keeps?: boolean;
    onheard?: (heard: EarAnswer) => void;
    /** Whose beat it is, as the check of a tick answers; '' where nobody can tell. */
    onoutcome?: (outcome: string, words: Said) => void;
    onhertz?: (hertz: number) => void;
  }
  const {
    saw_id,
    band_id,
    speed_m_s = null,
    pluck = false,
    keeps = false,
    onheard,
    onoutcome,
    onhertz,
  }: Props = $props();

  const SECONDS = 5;
  const TAP_ENDS_MS = 4000;
  let loud = $state<number | null>(null);
  let fault = $state<Said>("");
  let words = $state<Said>("");
  let taps = $state<number[]>([]);
  const query = $derived({ saw_id, band_id, ...(speed_m_s === null ? {} : { speed_m_s }) });

  async function take(sound: Blob, good: boolean): Promise<void> {
    try {
      const bytes = asBytes(sound, "audio/wav");
      if (pluck) {
        const heard = await ask(client.POST("/api/faults/pluck", bytes));
        words = `${significant(heard.frequency_Hz, 4)} Hz, ${heard.note}`;
        onhertz?.(heard.frequency_Hz);
      } else {
        const asked = { params: { query }, ...bytes };
        const heard: EarAnswer = await ask(
          good ? client.POST("/api/faults/ear/good", asked) : client.POST("/api/faults/ear", asked),
        );
        // A page that draws what was heard says it too.
        const plain = onheard ? "" : heard.words;
        words = good ? "Kept as a good run: levels only, not the sound." : plain;
        onheard?.(heard);
        onoutcome?.(heard.outcome, heard.words);
      }
      fault = "";
    } catch (problem) {
      words = "";
      fault = wordsOf(problem);
    }
  }

  async function listen(good = false): Promise<void> {
    loud = 0;
    fault = "";
    try {
      const hears = (l: number) => (loud = Math.max(l, 0));
      const sound = pluck ? await record(hears) : await recordFor(SECONDS, hears);
      loud = null;
      await take(sound, good);
    } catch (problem) {
      loud = null;
      fault = wordsOf(problem);
    }
  }

  async function file(event: Event): Promise<void> {
    const input = event.currentTarget as HTMLInputElement;
    const chosen = input.files?.[0];
    input.value = "";
    if (chosen) await take(new Blob([chosen], { type: "audio/wav" }), false);
  }

  function tap(): void {
    const now = performance.now();
    const last = taps.at(-1);
    taps = last !== undefined && now - last > TAP_ENDS_MS ? [now] : [...taps, now];
  }

  async function name(): Promise<void> {
    const first = taps[0] ?? 0;
    const times_s = taps.map((t) => (t - first) / 1000);
    try {
      const found: Tapped = await ask(
        client.POST("/api/faults/tapped", { body: { saw_id, band_id, times_s, speed_m_s } }),
      );
      words = found.words;
      fault = "";
      onoutcome?.(found.outcome, found.words);
    } catch (problem) {
      fault = wordsOf(problem);
    }
    taps = [];
  }
</script>

<div class="hearing">
  <Action disabled={loud !== null || invalidFields.any} onclick={() => void listen()}
    >{loud !== null ? "Listening …" : pluck ? "Listen for the pluck" : "Listen, 5 seconds"}</Action
  >
  <label class="file"
    >A recording<input
      class="unseen"
      type="file"
      accept=".wav,.flac,audio/wav,audio/flac"
      onchange={(e) => void file(e)}
    /></label
  >
  {#if keeps}
    <Action disabled={loud !== null || invalidFields.any} onclick={() => void listen(true)}
      >It runs well: keep this as its good run</Action
    >
  {/if}
  {#if !pluck}
    <button type="button" class="tap" onclick={tap}
      >Tap along{taps.length > 0 ? `: ${taps.length}` : ""}</button
    >
    {#if taps.length > 1}<Action onclick={() => void name()}>What ticks?</Action>{/if}
  {/if}
  {#if loud !== null}<meter min="0" max="0.5" value={loud} aria-label="Level"></meter>{/if}
  {#if words}<p role="status">{shop.words(words)}</p>{/if}
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
</div>

<style>
  .hearing {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: center;
    padding: var(--s3) 0;
  }
  p {
    flex-basis: 100%;
  }
  .file {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    border-bottom: var(--rule) solid var(--jade);
    cursor: pointer;
    font-weight: 600;
  }
  .file:focus-within {
    outline: 3px solid var(--focus);
  }
  .tap {
    min-height: 3.5rem;
    min-width: 8rem;
    background: var(--paper);
    border: var(--rule) solid var(--ink);
    font-weight: 650;
  }
</style>
