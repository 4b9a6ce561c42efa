<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import { push } from "svelte-spa-router";

  import { ask, client } from "../../api/client";
  import type { Hit } from "../../api/schema";
  import { Latest } from "../../lib/sending/latest";
  import { notice } from "../../lib/notice.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";

  const { onclose }: { onclose: () => void } = $props();

  const PLACES: Record<string, string> = {
    job: "/plan/",
    band: "/rack/",
    saw: "/shop/saws/",
    stock: "/stock/",
  };
  const latest = new Latest();
  let typed = $state("");
  let hits = $state<Hit[]>([]);
  let at = $state(0);
  let box = $state<HTMLDialogElement>();
  // Focus is held inside a modal dialog, which only its method opens.
  $effect(() => box?.showModal());

  async function find(q: string): Promise<void> {
    typed = q;
    at = 0;
    try {
      const found = await latest.take(() =>
        ask(client.GET("/api/search", { params: { query: { q } } })),
      );
      if (found) hits = found;
    } catch (problem) {
      notice.fail(problem);
    }
  }

  function go(hit: Hit | undefined): void {
    if (!hit) return;
    box?.close();
    if (hit.place) void push(hit.place);
    else if (hit.noun === "material") {
      currentJob.change({ material: hit.key });
      void push("/plan");
    } else {
      const place = PLACES[hit.noun] ?? "/plan/";
      void push(place + hit.key);
    }
  }

  function steer(event: KeyboardEvent): void {
    if (event.key === "ArrowDown") at = Math.min(at + 1, hits.length - 1);
    else if (event.key === "ArrowUp") at = Math.max(at - 1, 0);
    else if (event.key === "Enter") go(hits[at]);
    else return;
    event.preventDefault();
  }
</script>

<dialog
  bind:this={box}
  {onclose}
  onclick={(e) => e.target === box && box?.close()}
  aria-label="Find anything"
>
  <label for="find">Find a record, page, step, rule or word</label>
  <input
    id="find"
    autofocus
    autocomplete="off"
    role="combobox"
    aria-expanded={hits.length > 0}
    aria-controls="find-hits"
    aria-activedescendant={hits[at] ? `hit-${at}` : undefined}
    value={typed}
    oninput={(e) => void find(e.currentTarget.value)}
    onkeydown={steer}
  />
  <ul id="find-hits" role="listbox" aria-label="Found">
    {#each hits as hit, i (hit.noun + hit.key)}
      <li id="hit-{i}" role="option" aria-selected={i === at}>
        <button type="button" tabindex="-1" onclick={() => go(hit)}>
          <span class="noun">{hit.noun}</span><strong>{hit.title}</strong>
          <span class="soft">{shop.words(hit.detail)}</span>
        </button>
      </li>
    {/each}
  </ul>
  {#if typed.trim() && hits.length === 0}
    <p class="soft">Nothing found for “{typed}”.</p>
  {/if}
</dialog>

<style>
  dialog {
    width: min(44rem, calc(100vw - 2 * var(--s4)));
    margin-top: 10vh;
    max-height: 80vh;
  }
  input {
    width: 100%;
    min-height: 3.5rem;
    font-size: var(--text-large);
    background: none;
  }
  li button {
    display: flex;
    gap: var(--s3);
    align-items: baseline;
    width: 100%;
    min-height: var(--touch);
    padding: var(--s2);
    text-align: left;
    background: none;
    border-bottom: var(--hair) solid var(--hairline);
    flex-wrap: wrap;
  }
  li[aria-selected="true"] button,
  li button:hover {
    background: var(--jade-pale);
  }
  .noun {
    width: 5rem;
    color: var(--ink-soft);
  }
</style>
