<script lang="ts">
  import { onDestroy } from "svelte";

  import { feedOf, markAt, passTime } from "../../lib/figures/pace";
  import { shop } from "../../lib/shop.svelte";
  import { recall, remember } from "../../lib/storage";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  interface Props {
    /** The planned feed, m/min. */
    feed: number;
    /** The true feed, m/min, of a length that was timed. */
    onfeed: (feed: number) => void;
  }
  const { feed, onfeed }: Props = $props();
  const BEEP_HZ = 880;
  const BEEP_S = 0.08;

  let length = $state(recall("pace.length", 1000));
  let heard = $state(recall("pace.heard", false));
  let began = $state<number | null>(null);
  let now = $state(0);
  let told = $state<number | null>(null);
  let frame = 0;
  let passes = 0;
  let sound: AudioContext | null = null;

  const place = $derived(began === null ? 0 : markAt(now - began, length, feed));

  function beep(): void {
    sound ??= new AudioContext();
    const tone = sound.createOscillator();
    tone.frequency.value = BEEP_HZ;
    tone.connect(sound.destination);
    tone.start();
    tone.stop(sound.currentTime + BEEP_S);
  }

  function tick(at: number): void {
    now = at;
    const passed = began === null ? 0 : Math.floor((at - began) / passTime(length, feed));
    if (heard && passed > passes) beep();
    passes = passed;
    if (began !== null) frame = requestAnimationFrame(tick);
  }

  function start(): void {
    told = null;
    began = now = performance.now();
    passes = 0;
    if (heard) beep();
    frame = requestAnimationFrame(tick);
  }

  /** The work passed the second mark: that was its true feed. */
  function passedMark(): void {
    if (began !== null) told = feedOf(length, performance.now() - began);
    stop();
    if (told !== null) onfeed(told);
  }

  function stop(): void {
    cancelAnimationFrame(frame);
    began = null;
  }
  onDestroy(() => {
    stop();
    void sound?.close();
  });
</script>

<details class="pace">
  <summary>Keep the pace</summary>
  <p class="soft">
    Mark the work at this length. The mark goes along it at the planned
    <strong class="mono">{shop.say(feed, "feed")}</strong>; tap when the second mark passes the
    band.
  </p>
  <svg viewBox="-8 -16 416 32" role="img" aria-label="Where the work should be by now">
    <line x2="400" />
    <line y1="-9" y2="9" />
    <line x1="400" x2="400" y1="-9" y2="9" />
    <circle cx={place * 400} r="8" />
  </svg>
  <div class="row">
    <QuantityField
      label="Marked length"
      kind="length"
      value={length}
      onvalue={(v) => {
        length = v && v > 0 ? v : length;
        remember("pace.length", length);
      }}
    />
    <label class="heard"
      ><input
        type="checkbox"
        checked={heard}
        onchange={(e) => {
          heard = e.currentTarget.checked;
          remember("pace.heard", heard);
        }}
      /> heard</label
    >
    {#if began === null}
      <Action onclick={start}>First mark at the band</Action>
    {:else}
      <Action onclick={passedMark}>Second mark at the band</Action>
      <Action onclick={stop}>Stop</Action>
    {/if}
  </div>
  {#if told !== null}
    <p role="status">
      That was <strong class="mono">{shop.say(told, "feed")}</strong>; planned is {shop.say(
        feed,
        "feed",
      )}.
    </p>
  {/if}
</details>

<style>
  .pace {
    padding-bottom: var(--s3);
  }
  svg {
    width: 100%;
    height: 2.5rem;
  }
  line {
    stroke: var(--ink);
    stroke-width: 2;
  }
  circle {
    fill: var(--jade);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: end;
  }
  .heard {
    display: flex;
    gap: var(--s2);
    align-items: center;
    min-height: var(--touch);
    font-weight: 600;
  }
  .heard input {
    width: 1.5rem;
    height: 1.5rem;
  }
</style>
