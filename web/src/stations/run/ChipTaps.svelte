<script lang="ts">
  import type { ChipsSay, RunInput } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { shop } from "../../lib/shop.svelte";

  type Chips = NonNullable<RunInput["chips"]>;
  interface Props {
    chosen: Chips | null;
    /** What the core says of each kind, under, within and over the window. */
    table: readonly ChipsSay[];
    /** Where the feed stands in the window; null while it is not known. */
    place: ChipsSay["by_feed"] | null;
    onchips: (chips: Chips | null) => void;
  }
  const { chosen, table, place, onchips }: Props = $props();
  /** Drawn as they lie under the table, 60 by 34. */
  const DRAWN: readonly { key: Chips; paths: readonly string[] }[] = [
    {
      key: "dust",
      paths: [
        "M8 28c6-9 14-12 22-12s16 4 22 12Z",
        "M14 14h.1M22 10h.1M30 7h.1M38 9h.1M46 13h.1M26 14h.1M34 13h.1M42 17h.1",
      ],
    },
    {
      key: "grit",
      paths: ["M10 26l4-4 4 4ZM22 20l3-4 4 5ZM34 27l4-5 4 4ZM44 19l4-4 3 5ZM28 29l3-3 3 3Z"],
    },
    {
      key: "flakes",
      paths: ["M6 24q5-9 12-5t-3 8ZM24 16q7-6 12 0t-6 7ZM40 26q5-8 12-3t-4 6ZM22 30q5-5 9-1t-5 3Z"],
    },
    {
      key: "strings",
      paths: ["M4 26q6-14 12 0t12 0t12 0t12-4", "M8 14q8-10 14 0t14-2t14 2"],
    },
  ];
  const said = $derived(
    chosen === null
      ? undefined
      : table.find((t) => t.chips === chosen && t.by_feed === (place ?? "right")),
  );
</script>

<fieldset>
  <legend>Chips</legend>
  <div>
    {#each DRAWN as kind (kind.key)}
      <button
        type="button"
        aria-pressed={chosen === kind.key}
        onclick={() => onchips(chosen === kind.key ? null : kind.key)}
      >
        <svg viewBox="0 0 60 34" aria-hidden="true">
          {#each kind.paths as d (d)}<path {d} />{/each}
        </svg>
        {called("chips", kind.key)}
      </button>
    {/each}
  </div>
</fieldset>
{#if said}
  <p role="status">
    {shop.words(said.words)}
    {#if place === null}<span class="soft">Taken at the planned feed: time it to be sure.</span
      >{/if}
  </p>
{/if}

<style>
  legend {
    padding-bottom: var(--s2);
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
  }
  button {
    display: grid;
    justify-items: center;
    min-width: 5.5rem;
    min-height: 4rem;
    padding: var(--s1);
    border: var(--hair) solid var(--ink);
  }
  button[aria-pressed="true"] {
    background: var(--jade-pale);
    font-weight: 650;
  }
  svg {
    width: 4.5rem;
  }
  path {
    fill: none;
    stroke: var(--chip);
    stroke-width: 3;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
</style>
