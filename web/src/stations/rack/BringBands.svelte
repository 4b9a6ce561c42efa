<script lang="ts">
  import { asBytes } from "../../lib/bytes";
  import { push } from "svelte-spa-router";

  import { ask, client, wordsOf } from "../../api/client";
  import type { BandSheetInput, SheetLook } from "../../api/schema";
  import { Latest } from "../../lib/sending/latest";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";

  const EXAMPLE = `label, width, tpi, steel, length, looks\nK-01, 25, 2/3, bi-metal, 4580, keen\nK-02, 3/4", 4, carbon, 4.58 m, worn`;

  let text = $state("");
  let columns = $state<Record<string, number> | null>(null);
  let found = $state<SheetLook | null>(null);
  let failed = $state<Said>("");
  let bringing = $state(false);
  const asked = new Latest();
  const body = $derived<BandSheetInput>({ text, columns });

  // The core reads the sheet whenever it changes; nothing is written by that.
  $effect(() => {
    if (text.trim() === "") {
      [found, failed] = [null, ""];
      return;
    }
    asked
      .take(() => ask(client.POST("/api/bands/sheet/look", { body })))
      .then((look) => ([found, failed] = [look, ""]))
      .catch((problem: unknown) => ([found, failed] = [null, wordsOf(problem)]));
  });

  function paste(next: string): void {
    columns = null;
    text = next;
  }

  async function open(file: File | undefined): Promise<void> {
    if (!file) return;
    if (!/\.xlsx$/i.test(file.name)) {
      paste(await file.text());
      return;
    }
    try {
      const read = client.POST("/api/files/workbook", {
        ...asBytes(file),
      });
      paste((await ask(read)).text);
    } catch (problem) {
      failed = wordsOf(problem);
    }
  }

  /** A column is taken for another thing: whatever was taken for that, is not any more. */
  function take(at: number, key: string): void {
    const others = Object.entries(found?.columns ?? {}).filter(([k, c]) => c !== at && k !== key);
    columns = { ...Object.fromEntries(others), ...(key ? { [key]: at } : {}) };
  }

  const keyOf = (at: number) =>
    Object.entries(found?.columns ?? {}).find(([, c]) => c === at)?.[0] ?? "";

  async function bring(): Promise<void> {
    bringing = true;
    try {
      const { added } = await ask(client.POST("/api/bands/sheet", { body }));
      notice.say(`${added} ${added === 1 ? "band is" : "bands are"} on the rack.`);
      await push("/rack");
    } catch (problem) {
      notice.fail(problem);
    } finally {
      bringing = false;
    }
  }
</script>

<h1>Bands from a list</h1>
<p class="soft">
  Paste a list from a spreadsheet, or open a CSV file or a workbook (.xlsx): the first line says
  what the columns are. All come in, or none.
</p>
<div class="sheet">
  <label>
    The list
    <textarea
      rows="6"
      class="mono"
      value={text}
      placeholder={EXAMPLE}
      oninput={(e) => paste(e.currentTarget.value)}></textarea>
  </label>
  <label>
    or a file
    <input
      type="file"
      accept=".csv,.tsv,.txt,.xlsx,text/csv,text/plain"
      onchange={(e) => void open(e.currentTarget.files?.[0])}
    />
  </label>
</div>
{#if failed}<p role="alert" class="failed">{shop.words(failed)}</p>{/if}
{#if found}
  <h2>What the columns are</h2>
  <div class="columns">
    {#each found.headings as heading, at (at)}
      <label>
        {heading || `column ${at + 1}`}
        <select value={keyOf(at)} onchange={(e) => take(at, e.currentTarget.value)}>
          <option value="">left out</option>
          {#each found.known as column (column.key)}<option value={column.key}>{column.name}</option
            >{/each}
        </select>
      </label>
    {/each}
  </div>
  <h2 role="status">
    {found.good}
    {found.good === 1 ? "band" : "bands"} to bring in{found.bad > 0
      ? `, ${found.bad} that cannot be read`
      : ""}
  </h2>
  <ol class="rows">
    {#each found.rows as row (row.line)}
      <li data-bad={row.faults.length > 0}>
        <span class="mono">{row.label || `line ${row.line}`}</span>
        <span
          >{shop.words(row.words)}
          {#if shop.words(row.taken)}<span class="soft">({shop.words(row.taken)})</span>{/if}
          {#each row.faults as fault (fault.path)}
            <strong>Line {row.line}: {shop.words(fault.message)}.</strong>
          {/each}
        </span>
      </li>
    {/each}
  </ol>
  <div class="actions">
    <Action
      main
      disabled={bringing || found.bad > 0 || found.good === 0}
      onclick={() => void bring()}
      >Bring in {found.good} {found.good === 1 ? "band" : "bands"}</Action
    >
    <Action href="#/rack">Cancel</Action>
    {#if found.bad > 0}<p class="soft">Put the marked lines right above, or take them out.</p>{/if}
  </div>
{/if}

<style>
  .sheet {
    display: grid;
    gap: var(--s4);
    padding: var(--s4) 0;
  }
  label {
    gap: var(--s1);
  }
  textarea,
  select,
  input {
    width: 100%;
  }
  .columns {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(10rem, 100%), 1fr));
    gap: var(--s3);
    padding: var(--s3) 0 var(--s4);
  }
  ol {
    padding: var(--s3) 0;
  }
  li {
    grid-template-columns: 7rem 1fr;
    padding: var(--s2) 0;
  }
  li strong,
  .failed {
    display: block;
    color: var(--vermilion);
    font-weight: 600;
  }
</style>
