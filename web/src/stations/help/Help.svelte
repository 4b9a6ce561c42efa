<script lang="ts">
  import Fuse from "fuse.js";

  import { askPatiently, client } from "../../api/client";
  import type { Help } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import Action from "../../parts/Action.svelte";
  import Fold from "../../parts/Fold.svelte";

  const { params }: { params?: { key?: string } } = $props();
  let found = $state<Help | null>(null);
  let typed = $state("");
  askPatiently(() => client.GET("/api/help"))
    .then((help) => (found = help))
    .catch((p: unknown) => notice.fail(p));

  /** So many of what a search finds are told at once. */
  const MOST_TOLD = 5;
  const STATIONS = ["plan", "setup", "run", "inspect", "rack", "stock", "faults", "log", "shop"];
  const stations = $derived((found?.pages ?? []).filter((p) => STATIONS.includes(p.key)));
  const others = $derived((found?.pages ?? []).filter((p) => !STATIONS.includes(p.key)));
  const search = $derived(
    new Fuse(found?.terms ?? [], {
      keys: [{ name: "title", weight: 3 }, { name: "also", weight: 2 }, "what", "why", "measure"],
      threshold: 0.35,
      ignoreLocation: true,
    }),
  );
  const terms = $derived(
    typed.trim() === "" ? (found?.terms ?? []) : search.search(typed).map((hit) => hit.item),
  );
  const one = $derived(found?.terms.find((t) => t.key === params?.key));

  // A term that the address names is brought into view, once it is there.
  $effect(() => {
    if (one) document.getElementById(`term-${one.key}`)?.scrollIntoView({ block: "start" });
  });
</script>

<header>
  <h1>Help</h1>
  <Action onclick={() => globalThis.print()}>Print</Action>
</header>
{#if found}
  <section>
    <h2>Stations, in working order</h2>
    {#each stations as page (page.key)}
      <h3><a href="#{page.place}">{page.title}</a></h3>
      <p>{page.help}</p>
    {/each}
  </section>
  <section>
    <Fold name="Other pages" gist="{others.length} of them">
      <dl class="pages">
        {#each others as page (page.key)}
          <dt><a href="#{page.place}">{page.title}</a></dt>
          <dd>{page.help}</dd>
        {/each}
      </dl>
    </Fold>
  </section>
  <section>
    <h2>What the words mean</h2>
    <label class="no-print">
      Find a word
      <input bind:value={typed} autocomplete="off" placeholder="feed per tooth, kerf, drift …" />
    </label>
    <p class="words no-print">
      {#each terms as term (term.key)}<a href="#/help/{term.key}">{term.title}</a>{/each}
    </p>
    {#each terms as term, i (term.key)}
      <article
        id="term-{term.key}"
        data-asked={term.key === params?.key}
        data-told={term.key === params?.key || (typed.trim() !== "" && i < MOST_TOLD)}
      >
        <h3><a href="#/help/{term.key}">{term.title}</a></h3>
        {#if term.also}<p class="soft">Also: {term.also}.</p>{/if}
        <p>{term.what}</p>
        <p>{term.why}</p>
        <p><strong>How to tell:</strong> {term.measure}</p>
      </article>
    {:else}
      <p>No word like “{typed}”. Find (the key /) looks through records and pages too.</p>
    {/each}
  </section>
{/if}

<style>
  header {
    display: flex;
    gap: var(--s5);
    align-items: center;
  }
  section {
    max-width: 50rem;
    padding: var(--s3) 0 var(--s5);
  }
  h3 {
    padding-top: var(--s3);
    font-size: var(--text-large);
  }
  h3 a,
  dt a {
    color: inherit;
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
  article {
    border-top: var(--hair) solid var(--hairline);
    padding-bottom: var(--s3);
  }
  article[data-asked="true"] {
    border-top: var(--rule) solid var(--jade);
    background: var(--jade-pale);
    padding: 0 var(--s3) var(--s3);
  }
  .words {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
  }
  .words a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
  /* On paper all of them are told. */
  @media screen {
    article[data-told="false"] {
      display: none;
    }
  }
  .pages {
    display: grid;
    grid-template-columns: minmax(9rem, 14rem) 1fr;
    gap: 0 var(--s3);
  }
  dt {
    font-weight: 600;
  }
  dd {
    padding: var(--s2) 0;
  }
  label {
    max-width: 30rem;
    padding-bottom: var(--s3);
  }
  input {
    font-size: var(--text-large);
  }
</style>
