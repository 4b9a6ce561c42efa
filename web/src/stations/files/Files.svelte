<script lang="ts">
  import { asBytes } from "../../lib/bytes";
  import { ask, client, wordsOf } from "../../api/client";
  import type { FileLook } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import ShopPages from "../shop/ShopPages.svelte";

  type Table = "bands" | "types" | "runs" | "events" | "materials";
  const TABLES: readonly { key: Table; name: string }[] = [
    { key: "bands", name: "Bands" },
    { key: "types", name: "Own band types" },
    { key: "runs", name: "Runs" },
    { key: "events", name: "What happened to bands" },
    { key: "materials", name: "Own materials" },
  ];
  let table = $state<Table>("bands");
  let text = $state("");
  let look = $state<FileLook | null>(null);
  let fault = $state<Said>("");
  let busy = $state(false);
  const call = $derived({
    params: { query: { table } },
    ...asBytes(text, "text/csv"),
  });

  async function open(file: File | undefined): Promise<void> {
    if (!file) return;
    text = await file.text();
    busy = true;
    try {
      look = await ask(client.POST("/api/files/look", call));
      fault = "";
    } catch (problem) {
      [look, fault] = [null, wordsOf(problem)];
    } finally {
      busy = false;
    }
  }

  async function bring(): Promise<void> {
    busy = true;
    try {
      const done = await ask(client.POST("/api/files", call));
      notice.say(`${done.added} added, ${done.changed} changed. Undo it under Changes.`);
      [look, text, fault] = [null, "", ""];
    } catch (problem) {
      fault = wordsOf(problem);
    } finally {
      busy = false;
    }
  }
</script>

<ShopPages title="Records out and in" />
<p class="soft">
  CSV with headings, UTF-8, units at the end of each heading. What comes in is shown line by line
  first; all of it is taken, or none; one undo takes it back.
</p>
<h2>Out</h2>
<div class="form">
  {#each TABLES as t (t.key)}<Action href="/files/{t.key}.csv">{t.name}</Action>{/each}
</div>
<h2>In</h2>
<div class="form">
  <label
    >What it holds<select bind:value={table} onchange={() => ((look = null), (fault = ""))}>
      {#each TABLES as t (t.key)}<option value={t.key}>{t.name}</option>{/each}
    </select></label
  >
  <label
    >The file<input
      type="file"
      accept=".csv,text/csv"
      disabled={busy}
      onchange={(e) => void open(e.currentTarget.files?.[0])}
    /></label
  >
</div>
{#if fault}<p role="alert" class="fault">{shop.words(fault)}</p>{/if}
{#if look}
  <p role="status">
    <strong>{look.added} to add, {look.changed} to change</strong>, {look.same} as they are{look.bad >
    0
      ? `, ${look.bad} that cannot come in`
      : ""}.
  </p>
  <ul class="rows">
    {#each look.lines as line (line.line)}
      <li data-bad={line.action === "bad"}>
        <span class="mono">line {line.line}</span>
        <span
          >{line.action === "add" ? "new" : ""}
          {line.words}
          {#each line.faults as f (f.path + String(f.message))}
            <strong>{f.path}: {shop.words(f.message)}.</strong>
          {/each}</span
        >
      </li>
    {/each}
  </ul>
  <Action
    main
    disabled={busy || look.bad > 0 || look.added + look.changed === 0}
    onclick={() => void bring()}>Take it</Action
  >
{/if}

<style>
  h2 {
    padding-top: var(--s4);
  }
  label {
    flex: 1 1 12rem;
    min-width: 0;
    max-width: 26rem;
  }
  select,
  input {
    width: 100%;
    min-width: 0;
  }
  li {
    grid-template-columns: 6rem 1fr;
    padding: var(--s1) 0;
  }
  [data-bad="true"] strong,
  .fault {
    color: var(--vermilion);
  }
</style>
