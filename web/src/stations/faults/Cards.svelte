<script lang="ts">
  import { askPatiently, client, wordsOf } from "../../api/client";
  import type { Card } from "../../api/schema";
  import { HIGH, signMarks, WIDE } from "../../drawings/signs";
  import { shop } from "../../lib/shop.svelte";
  import { fixed, type Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Marks from "../../parts/pictures/Marks.svelte";
  import FaultPages from "./FaultPages.svelte";

  let cards = $state.raw<Card[]>([]);
  let fault = $state<Said>("");
  askPatiently(() => client.GET("/api/faults/cards"))
    .then((found) => (cards = found))
    .catch((p: unknown) => (fault = wordsOf(p)));
</script>

<FaultPages title="Cards for the wall" />
<p class="soft no-print">
  Written from the same tables, as this shop’s own findings have moved them. One card a page.
  <Action onclick={() => globalThis.print()}>Print them</Action>
</p>
{#if fault}<p role="alert">{shop.words(fault)}</p>{/if}
{#each cards as card (card.sign)}
  <article>
    <header>
      <figure><Marks marks={signMarks(card.sign)} wide={WIDE} high={HIGH} /></figure>
      <div>
        <h2>{card.name}</h2>
        <p>{card.look}</p>
      </div>
    </header>
    <div class="two">
      <section>
        <h3>Mostly it is</h3>
        <ol>
          {#each card.causes as c (c.key)}
            <li>
              <strong>{c.name}</strong>
              <span class="soft">{shop.chance(c.chance)}, {c.words}</span><br />
              {c.remedy}
            </li>
          {/each}
        </ol>
      </section>
      <section>
        <h3>What tells which</h3>
        {#each card.checks as check (check.key)}
          <p class="check">
            <strong>{check.do}</strong> <span class="soft">{fixed(check.minutes, 0)} min</span>
          </p>
          <ul>
            {#each check.answers as a (a.words)}
              <li>
                {a.words}{#if a.cause}<span class="to"
                    >→ <strong>{a.cause}</strong> {shop.chance(a.chance)}</span
                  >{/if}
              </li>
            {/each}
          </ul>
        {/each}
      </section>
    </div>
    <p class="soft">
      The saw’s manual, your local codes and a competent or licensed person come before anything
      shown here.
    </p>
  </article>
{/each}

<style>
  .to {
    margin-left: 0.5em;
  }
  article {
    padding: var(--s4) 0 var(--s5);
    border-top: var(--rule) solid var(--ink);
    break-inside: avoid;
    break-after: page;
  }
  header {
    display: grid;
    grid-template-columns: 10rem 1fr;
    gap: var(--s4);
    align-items: center;
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: var(--s5);
    padding: var(--s3) 0;
  }
  ol > li {
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .check {
    padding-top: var(--s2);
    border-top: var(--hair) solid var(--hairline);
  }
  ul {
    padding-left: var(--s4);
  }
  @media (max-width: 45em) {
    .two {
      grid-template-columns: 1fr;
    }
  }
</style>
