<script lang="ts">
  import { scaleLinear } from "d3-scale";

  import { router } from "svelte-spa-router";

  import { ask, askPatiently, client, wordsOf } from "../../api/client";
  import type { BandAnswer, Book } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { shop } from "../../lib/shop.svelte";
  import { day, fixed, type Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Wide from "../../parts/Wide.svelte";
  import LogPages from "../log/LogPages.svelte";

  const asked = new URLSearchParams(router.querystring ?? "");
  let saw_id = $state<number | null>(Number(asked.get("saw")) || null);
  let band_id = $state<number | null>(Number(asked.get("band")) || null);
  let bands = $state.raw<BandAnswer[]>([]);
  let book = $state.raw<Book | null>(null);
  let fault = $state<Said>("");
  let by = $state<"minutes" | "money" | "times">("minutes");

  /** The troubles before those that are here; the sums are of all anyway. */
  async function older(): Promise<void> {
    most += AT_ONCE;
    if (!book?.more || book.troubles.length >= most) return;
    const last = book?.troubles.filter((t) => t.state === "closed" || t.state === "gone").at(-1);
    if (!book || !last) return;
    const query = {
      before: last.id,
      ...(saw_id === null ? {} : { saw_id }),
      ...(band_id === null ? {} : { band_id }),
    };
    const found = await askPatiently(() => client.GET("/api/faults", { params: { query } }));
    book = { ...found, troubles: [...book.troubles, ...found.troubles] };
  }

  async function load(saw: number | null, band: number | null): Promise<void> {
    try {
      const query = {
        ...(saw === null ? {} : { saw_id: saw }),
        ...(band === null ? {} : { band_id: band }),
      };
      book = await askPatiently(() => client.GET("/api/faults", { params: { query } }));
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
  // The saw and band chosen name the book, which is asked for.
  $effect(() => void load(saw_id, band_id));
  ask(client.GET("/api/bands"))
    .then((found) => (bands = found))
    .catch((p: unknown) => (fault = wordsOf(p)));

  const AT_ONCE = 12;
  let most = $state(AT_ONCE);
  const causes = $derived([...(book?.causes ?? [])].sort((a, b) => b[by] - a[by]));
  const x = $derived(scaleLinear([0, Math.max(1, ...causes.map((c) => c[by]))], [0, 100]));
</script>

<LogPages title="Trouble book" />
<div class="form no-print">
  <label
    >Saw<select
      value={saw_id ?? ""}
      onchange={(e) => (saw_id = Number(e.currentTarget.value) || null)}
    >
      <option value="">all</option>
      {#each shop.saws as s (s.id)}<option value={s.id}>{s.saw.name}</option>{/each}
    </select></label
  >
  <label
    >Band<select
      value={band_id ?? ""}
      onchange={(e) => (band_id = Number(e.currentTarget.value) || null)}
    >
      <option value="">all</option>
      {#each bands as b (b.id)}<option value={b.id}>{b.label}</option>{/each}
    </select></label
  >
  <label
    >By<select bind:value={by}>
      <option value="minutes">minutes lost</option>
      <option value="money">money</option>
      <option value="times">how often</option>
    </select></label
  >
</div>
{#if fault}<p role="alert">{shop.words(fault)}</p>{/if}
{#if book && book.count === 0}
  <p>
    No trouble is written down{saw_id === null && band_id === null ? "" : " for these"}.
    <a href="#/faults">Tell one</a>.
  </p>
{:else if book}
  <p>
    {book.count} troubles, {fixed(book.minutes / 60, 1)} hours and {shop.money(
      book.money,
    )}{book.not_found ? `; ${book.not_found} went or were given up without a cause found` : ""}.
  </p>
  <ul class="sums" aria-label="By cause">
    {#each causes.slice(0, most) as c (c.cause)}
      <li>
        <span class="name">{c.name}</span>
        <svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true"
          ><rect width={x(c[by])} height="10" /></svg
        >
        <span class="mono">{c.times} ×</span>
        <span class="mono">{fixed(c.minutes, 0)} min</span>
        <span class="mono">{shop.money(c.money)}</span>
        <span class="soft">{c.came_back ? `came back ${c.came_back} ×` : ""}</span>
      </li>
    {/each}
  </ul>
  <Wide label="Troubles">
    <table>
      <thead>
        <tr
          ><th>When</th><th>Saw, band</th><th>Signs</th><th>It was</th><th>min</th><th
            >{shop.currency}</th
          ></tr
        >
      </thead>
      <tbody>
        {#each book.troubles.slice(0, most) as t (t.id)}
          <tr>
            <td><a href="#/faults/{t.id}">{day(t.at)}</a></td>
            <td>{t.saw}{t.band ? `, ${t.band}` : ""}</td>
            <td>{t.signs.join(", ")}</td>
            <td
              >{t.found.join(" and ") ||
                (t.likely && t.state !== "gone" ? `perhaps: ${t.likely}` : "")}
              <span class="soft"
                >{called("trouble", t.state)}{t.came_back_of !== null ? " (came back)" : ""}</span
              ></td
            >
            <td class="mono">{fixed(t.minutes, 0)}</td>
            <td class="mono">{fixed(t.money, 0)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
  {#if book.more || book.troubles.length > most}<Action onclick={() => void older()}
      >Older troubles</Action
    >{/if}
{/if}

<style>
  .form {
    padding-bottom: var(--s3);
  }
  .sums {
    padding: var(--s3) 0 var(--s5);
    max-width: 60rem;
  }
  .sums li {
    display: grid;
    grid-template-columns: minmax(9rem, 15rem) 1fr 3rem 5rem 6rem 8rem;
    gap: var(--s3);
    align-items: center;
    min-height: 2rem;
  }
  svg {
    width: 100%;
    height: 0.9rem;
  }
  rect {
    fill: var(--jade);
  }
  .sums .mono {
    text-align: right;
    white-space: nowrap;
  }
  th,
  td {
    padding: var(--s2) var(--s3) var(--s2) 0;
  }
  td {
    max-width: 17rem;
  }
  td.mono {
    text-align: right;
    white-space: nowrap;
  }
  td a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    white-space: nowrap;
  }
  @media (max-width: 45em) {
    .sums li {
      grid-template-columns: 1fr auto auto auto;
      gap: 0 var(--s3);
      padding-top: var(--s2);
    }
    .sums .name,
    .sums svg {
      grid-column: 1 / -1;
    }
    .sums .soft {
      grid-column: 1;
      grid-row: 3;
    }
  }
</style>
