<script lang="ts">
  interface Props {
    /** What is typed so far. */
    text: string;
    /** Digits after the sign with which a reading is whole: the next one comes by itself. */
    places: number;
    ontext: (text: string) => void;
    onwhole: () => void;
  }
  const { text, places, ontext, onwhole }: Props = $props();
  const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0"] as const;

  function press(key: string): void {
    if (key === "." && text.includes(".")) return;
    const next = text + key;
    ontext(next);
    const after = next.split(".")[1];
    if (after?.length === places) onwhole();
  }
</script>

<div class="pad" role="group" aria-label="Number keys">
  {#each KEYS as key (key)}
    <button type="button" class="mono" onclick={() => press(key)}>{key}</button>
  {/each}
  <button
    type="button"
    aria-label="Take the last digit back"
    onclick={() => ontext(text.slice(0, -1))}>⌫</button
  >
</div>

<style>
  .pad {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: var(--s1);
    max-width: 22rem;
  }
  button {
    min-height: 3.5rem;
    background: var(--paper);
    border: var(--hair) solid var(--hairline);
    font-size: var(--figure);
  }
  button:active {
    background: var(--jade-pale);
  }
  /* Where there are keys and a mouse, the field is typed into. */
  @media (pointer: fine) and (min-width: 900px) {
    .pad {
      display: none;
    }
  }
</style>
