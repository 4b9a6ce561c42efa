<script lang="ts">
  import type { Explained } from "../api/schema";
  import { shop } from "../lib/shop.svelte";
  import { significant, type Kind } from "../lib/figures/units";

  interface Props {
    /** What the figure rests on. */
    explained: Explained;
    onclose: () => void;
  }
  const { explained, onclose }: Props = $props();

  const KINDS: Record<string, Kind> = {
    mm: "length",
    MPa: "stress",
    N: "force",
    "m/min": "feed",
    "m/s": "speed",
    W: "power",
  };

  function shown(value: number, unit: string): string {
    if (unit === "money") return shop.money(value);
    if (unit === "share") return `${significant(100 * value, 3)} %`;
    const kind = KINDS[unit];
    if (kind) return shop.say(value, kind);
    return `${significant(value, 3)} ${unit}`.trim();
  }

  let box = $state<HTMLDialogElement>();
  // The dialog element is opened by its method, so that focus is held inside it.
  $effect(() => box?.showModal());
</script>

<dialog
  bind:this={box}
  {onclose}
  onclick={(e) => e.target === box && box?.close()}
  aria-labelledby="reasons-title"
>
  <header>
    <h2 id="reasons-title">{explained.title}</h2>
    <button type="button" class="close" onclick={() => box?.close()}>Close</button>
  </header>
  <p class="value mono">{shown(explained.value, explained.unit)}</p>
  <p class="formula">{shop.words(explained.formula)}</p>
  <dl>
    {#each explained.inputs as input (input.name)}
      <div>
        <dt>{input.name}</dt>
        <dd class="mono">{shown(input.value, input.unit)}</dd>
      </div>
    {/each}
  </dl>
  {#if explained.term}
    <p>
      <a href="#/help/{explained.term}" onclick={() => box?.close()}>What it is, and how to tell</a>
    </p>
  {/if}
  <dl class="rests">
    <div>
      <dt>source</dt>
      <dd>{shop.words(explained.source)}</dd>
    </div>
    <div>
      <dt>how sure</dt>
      <dd>{shop.words(explained.uncertainty)}</dd>
    </div>
    {#if explained.rule}
      <div>
        <dt>house rule</dt>
        <dd>{shop.words(explained.rule)}</dd>
      </div>
    {/if}
  </dl>
</dialog>

<style>
  dialog {
    width: min(36rem, calc(100vw - 2 * var(--s4)));
    max-height: calc(100vh - 2 * var(--s5));
    overflow-y: auto;
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: var(--s4);
  }
  .value {
    font-size: var(--figure-large);
    font-weight: 650;
    line-height: 1.2;
  }
  .formula {
    padding: var(--s2) 0 var(--s4);
  }
  dl div {
    display: flex;
    justify-content: space-between;
    gap: var(--s4);
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .rests {
    border-top: var(--rule) solid var(--ink);
    margin-top: var(--s3);
  }
  .rests div {
    display: grid;
    grid-template-columns: 6.5rem 1fr;
  }
  .rests div:first-child {
    border-top: 0;
  }
  .close {
    min-height: var(--touch);
    min-width: var(--touch);
    background: none;
    border: 0;
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
</style>
