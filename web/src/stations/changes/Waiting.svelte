<script lang="ts">
  import { onDestroy } from "svelte";

  import type { RunInput } from "../../api/schema";
  import { giveUp, unsaved } from "../../lib/edit.svelte";
  import { notice } from "../../lib/notice.svelte";
  import { outbox, RENEW_MS, type WaitingRun } from "../../lib/sending/outbox.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { day, duration, time } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  const ALREADY = "The shop has it as it was first written down.";
  let drafts = $state.raw(unsaved());
  /** Changes typed into a run and not sent yet, by its key. */
  let typed = $state<Record<string, Partial<RunInput>>>({});

  const told = (at: number) =>
    `${day(new Date(at).toISOString())} ${time(new Date(at).toISOString())}`;

  /** What the fields began with: a run sent by another tab meanwhile does not take them away. */
  let begun = $state.raw<Record<string, WaitingRun>>({});

  // What is half typed and left is given up; the run itself goes on.
  onDestroy(() => void outbox.release(Object.keys(typed)));
  // The hold on what is being put right lapses by itself when this page is closed over it.
  const renewal = setInterval(() => {
    for (const key of Object.keys(typed)) void outbox.hold(key);
  }, RENEW_MS);
  onDestroy(() => clearInterval(renewal));

  const shown = $derived([
    ...outbox.entries,
    ...Object.values(begun).filter((b) => !outbox.entries.some((e) => e.key === b.key)),
  ]);

  function type(entry: WaitingRun, change: Partial<RunInput>): void {
    void outbox.hold(entry.key);
    begun = { [entry.key]: entry, ...begun };
    typed = { ...typed, [entry.key]: { ...typed[entry.key], ...change } };
  }

  function done(key: string): void {
    typed = Object.fromEntries(Object.entries(typed).filter(([k]) => k !== key));
    begun = Object.fromEntries(Object.entries(begun).filter(([k]) => k !== key));
  }

  async function sendAgain(entry: WaitingRun): Promise<void> {
    const came = await outbox.change(entry, typed[entry.key] ?? {});
    done(entry.key);
    if (came === "was_sent")
      notice.fail(new Error("It was sent before: the shop has it as it was. See below."));
  }

  const CAME = {
    sent: "The logged run is put right.",
    kept: "Kept here; the logged run is put right when the server answers.",
    refused: "Not taken: see why beside it.",
  };

  /** The run as it is here takes the place of the one that the shop has. */
  async function putRight(entry: WaitingRun): Promise<void> {
    const run = { ...entry.run, ...typed[entry.key] };
    const came = await outbox.replace({ ...entry, run });
    done(entry.key);
    notice.say(CAME[came]);
  }

  async function drop(entry: WaitingRun): Promise<void> {
    const gone = await outbox.drop(entry.key);
    done(entry.key);
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
  {#if shown.length === 0}
    <p class="soft">None: the shop has every run written down here.</p>
  {:else}
    <p class="soft">They are kept in this browser and sent as soon as the server answers.</p>
    <ul>
      {#each shown as entry (entry.key)}
        <li>
          <p>
            <span class="mono">{told(entry.logged)}</span>
            {shop.saw(entry.run.saw_id)?.saw.name ?? "a saw"}, job {entry.run.job_id}
            {#if entry.run.who}<span class="soft">by {entry.run.who}</span>{/if}
          </p>
          {#if entry.logged_run}
            <p class="refused" role="alert">{shop.words(entry.refused || ALREADY)}</p>
            <p>
              The shop has: {entry.logged_run.pieces} of {shop.say(
                entry.logged_run.length_mm,
                "length",
              )} in {duration(entry.logged_run.time_s)}.
            </p>
          {:else if entry.refused}
            <p class="refused" role="alert">Not taken: {shop.words(entry.refused)}</p>
          {:else if entry.tries > 0}
            <p class="refused">The server failed over it {entry.tries} times; others go first.</p>
          {/if}
          <div class="fields">
            <QuantityField
              label="Pieces"
              kind="plain"
              value={typed[entry.key]?.pieces ?? entry.run.pieces}
              onvalue={(v) => type(entry, { pieces: Math.round(v ?? 1) })}
            />
            <QuantityField
              label="Length of each"
              kind="length"
              value={typed[entry.key]?.length_mm ?? entry.run.length_mm}
              onvalue={(v) => type(entry, { length_mm: v ?? entry.run.length_mm })}
            />
            <QuantityField
              label="Minutes taken"
              kind="plain"
              value={((typed[entry.key]?.time_s ?? entry.run.time_s) || 0) / 60 || null}
              onvalue={(v) => type(entry, { time_s: v === null ? null : v * 60 })}
            />
          </div>
          <div class="actions">
            {#if entry.logged_run}
              <Action main onclick={() => void putRight(entry)}>Put the logged run right</Action>
            {:else}
              <Action main onclick={() => void sendAgain(entry)}>Send it now</Action>
            {/if}
            <Action onclick={() => void drop(entry)}>Discard</Action>
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
            <Action onclick={() => void outbox.drop(entry.key)}>Discard</Action>
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
          <Action onclick={() => discard(key)}>Discard</Action>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
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
    padding: var(--s2) 0;
  }
  .refused {
    color: var(--vermilion);
    font-weight: 600;
  }
  section + section {
    padding-top: var(--s5);
  }
</style>
