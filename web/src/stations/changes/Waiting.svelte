<script lang="ts">
  import { onDestroy } from "svelte";

  import type { RunInput } from "../../api/schema";
  import { giveUp, unsaved } from "../../lib/edit.svelte";
  import { notice } from "../../lib/notice.svelte";
  import { outbox, type WaitingRun } from "../../lib/outbox.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { day, time } from "../../lib/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  let drafts = $state.raw(unsaved());
  /** Changes typed into a run and not sent yet, by its key. */
  let typed = $state<Record<string, Partial<RunInput>>>({});

  const told = (at: number) =>
    `${day(new Date(at).toISOString())} ${time(new Date(at).toISOString())}`;

  // What is half typed and left is given up; the run itself goes on.
  onDestroy(() => outbox.release());

  function type(key: string, change: Partial<RunInput>): void {
    outbox.hold(key);
    typed = { ...typed, [key]: { ...typed[key], ...change } };
  }

  async function sendAgain(entry: WaitingRun): Promise<void> {
    await outbox.change(entry.key, typed[entry.key] ?? {});
    typed = Object.fromEntries(Object.entries(typed).filter(([key]) => key !== entry.key));
  }

  async function drop(entry: WaitingRun): Promise<void> {
    const gone = await outbox.drop(entry.key);
    if (gone) notice.canPutBack("The run is given up.", () => outbox.putBack(gone));
  }

  /** The runs as a file that somebody can send or type in elsewhere. */
  function saveFile(): void {
    const text = JSON.stringify([...outbox.entries, ...outbox.writes], null, 2);
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([text], { type: "application/json" }));
    link.download = "runs-not-sent.json";
    link.click();
    URL.revokeObjectURL(link.href);
  }

  function discard(key: string): void {
    giveUp(key);
    drafts = unsaved();
  }
</script>

<h1>Waiting</h1>
<section>
  <h2>Runs not sent</h2>
  {#if outbox.entries.length === 0}
    <p class="soft">None: the shop has every run written down here.</p>
  {:else}
    <p class="soft">They are kept in this browser and sent as soon as the server answers.</p>
    <ul>
      {#each outbox.entries as entry (entry.key)}
        <li>
          <p>
            <span class="mono">{told(entry.logged)}</span>
            {shop.saw(entry.run.saw_id)?.saw.name ?? "a saw"}, job {entry.run.job_id}
            {#if entry.run.who}<span class="soft">by {entry.run.who}</span>{/if}
          </p>
          {#if entry.refused}
            <p class="refused" role="alert">Not taken: {shop.words(entry.refused)}</p>
          {:else if entry.tries > 0}
            <p class="refused">The server failed over it {entry.tries} times; others go first.</p>
          {/if}
          <div class="fields">
            <QuantityField
              label="Pieces"
              kind="plain"
              value={typed[entry.key]?.pieces ?? entry.run.pieces}
              onvalue={(v) => type(entry.key, { pieces: Math.round(v ?? 1) })}
            />
            <QuantityField
              label="Length of each"
              kind="length"
              value={typed[entry.key]?.length_mm ?? entry.run.length_mm}
              onvalue={(v) => type(entry.key, { length_mm: v ?? entry.run.length_mm })}
            />
            <QuantityField
              label="Minutes taken"
              kind="plain"
              value={((typed[entry.key]?.time_s ?? entry.run.time_s) || 0) / 60 || null}
              onvalue={(v) => type(entry.key, { time_s: v === null ? null : v * 60 })}
            />
          </div>
          <div class="actions">
            <Action main onclick={() => void sendAgain(entry)}>Send it now</Action>
            <Action onclick={() => void drop(entry)}>Give it up</Action>
          </div>
        </li>
      {/each}
    </ul>
    <Action onclick={saveFile}>Save them as a file</Action>
  {/if}
</section>
{#if outbox.writes.length > 0}
  <section>
    <h2>Steps and events not sent</h2>
    <p class="soft">They go in their order, as soon as the server answers.</p>
    <ul>
      {#each outbox.writes as entry (entry.key)}
        <li>
          <p>
            <span class="mono">{told(entry.logged)}</span>
            <a href={entry.href}>{entry.title}</a>
          </p>
          {#if entry.refused}
            <p class="refused" role="alert">Not taken: {shop.words(entry.refused)}</p>
          {/if}
          <div class="actions">
            <Action onclick={() => void outbox.tryAgain(entry.key)}>Send it now</Action>
            <Action onclick={() => void outbox.dropWrite(entry.key)}>Give it up</Action>
          </div>
        </li>
      {/each}
    </ul>
  </section>
{/if}
<section>
  <h2>Not saved</h2>
  {#if drafts.length === 0}
    <p class="soft">None: every form that was filled in is saved.</p>
  {:else}
    <ul>
      {#each drafts as [key, kept] (key)}
        <li class="draft">
          <a href={kept.href}><strong>{kept.title}</strong></a>
          <span class="soft mono">{told(kept.at)}</span>
          <Action href={kept.href}>Go on with it</Action>
          <Action onclick={() => discard(key)}>Give it up</Action>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    padding: var(--s3) 0;
    border-top: var(--rule) solid var(--hairline);
  }
  .draft {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: center;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(14rem, 100%), 1fr));
    gap: var(--s4);
    padding: var(--s2) 0;
  }
  .actions {
    display: flex;
    gap: var(--s4);
  }
  .refused {
    color: var(--vermilion);
    font-weight: 600;
  }
  section + section {
    padding-top: var(--s5);
  }
</style>
