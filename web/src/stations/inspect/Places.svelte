<script lang="ts">
  import { placeAt, type PlaceToRead } from "../../drawings/relief";

  interface Props {
    points: "four" | "nine" | "any";
    places: readonly PlaceToRead[];
    /** What was read at each, as typed. */
    typed: readonly string[];
    current: number;
    onpick: (place: number) => void;
    onadd: (place: PlaceToRead) => void;
  }
  const { points, places, typed, current, onpick, onadd }: Props = $props();
  const W = 400;
  const H = 150;

  function tap(event: MouseEvent): void {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    if (event.detail === 0) return;
    const along = (event.clientX - box.left) / box.width;
    const up = 1 - (2 * (event.clientY - box.top)) / box.height;
    onadd(placeAt(along, up));
  }
</script>

{#if points === "any"}
  <!-- A picture to tap; each place tapped is a button of its own below it. -->
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
  <svg viewBox="0 0 {W} {H}" role="img" aria-label="The board: tap where you read it" onclick={tap}>
    <rect width={W} height={H} />
    {#each places as place, i (i)}
      <circle
        cx={place.along * W}
        cy={((1 - place.up) / 2) * H}
        r="9"
        data-current={i === current}
      />
      <text x={place.along * W} y={((1 - place.up) / 2) * H + 4.5}>{i + 1}</text>
    {/each}
  </svg>
  <div class="list">
    {#each places as place, i (i)}
      <button type="button" class="mono" aria-pressed={i === current} onclick={() => onpick(i)}
        >{i + 1}: {typed[i] || place.name}</button
      >
    {/each}
    <button
      type="button"
      onclick={() =>
        onadd(placeAt((places.length % 3) / 2, 1 - (Math.floor(places.length / 3) % 3)))}
      >Another place</button
    >
  </div>
{:else}
  <div class="grid" style:--columns={points === "four" ? 2 : 3}>
    {#each places as place, i (place.name)}
      <button
        type="button"
        class="point mono"
        style:grid-column={points === "four" ? place.along + 1 : place.along * 2 + 1}
        style:grid-row={points === "four" ? (1 - place.up) / 2 + 1 : 2 - place.up}
        aria-pressed={i === current}
        aria-label="Point {place.name}: {typed[i] || 'not read'}"
        onclick={() => onpick(i)}>{typed[i] || "·"}</button
      >
    {/each}
  </div>
{/if}

<style>
  svg {
    width: 100%;
    cursor: crosshair;
    margin: var(--s3) 0;
  }
  rect {
    fill: var(--wood);
    stroke: var(--ink);
  }
  circle {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  circle[data-current="true"] {
    stroke: var(--jade);
    stroke-width: 3;
  }
  text {
    font: 12px var(--mono);
    text-anchor: middle;
    fill: var(--ink);
  }
  .list {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
    padding-bottom: var(--s3);
  }
  .list button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    background: var(--paper);
    border: var(--hair) solid var(--hairline);
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(var(--columns), 1fr);
    gap: var(--s1);
    padding: var(--s3) 0;
  }
  .point {
    min-height: 3.25rem;
    background: var(--paper);
    border: var(--rule) solid var(--hairline);
    font-size: var(--text-large);
  }
  button[aria-pressed="true"] {
    border-color: var(--jade);
    box-shadow: inset 0 0 0 2px var(--jade);
  }
</style>
