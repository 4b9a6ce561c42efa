<script lang="ts">
  import { ask, askPatiently, client } from "../../api/client";
  import type { Deed } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { day, time } from "../../lib/figures/units";
  import LogPages from "../log/LogPages.svelte";
  import Action from "../../parts/Action.svelte";

  const { params }: { params?: { noun?: string; id?: string } } = $props();
  const PAGE = 50;

  let deeds = $state.raw<Deed[] | null>(null);
  let more = $state(false);
  let busy = $state(false);
  const AT_ONCE = 12;
  let most = $state(AT_ONCE);

  const about = $derived(params?.noun && params.id ? { noun: params.noun, id: params.id } : null);

  async function read(before: number | null): Promise<Deed[]> {
    const query = {
      ...(about ? { noun: about.noun, noun_id: Number(about.id) } : {}),
      ...(before === null ? {} : { before }),
    };
    const found = await askPatiently(() => client.GET("/api/changes", { params: { query } }));
    more = found.length === PAGE;
    return found;
  }

  async function load(): Promise<void> {
    deeds = await read(null);
  }
  // The address names whose changes are shown; reading them asks the server.
  $effect(() => {
    void about;
    load().catch((p: unknown) => notice.fail(p));
  });

  async function older(): Promise<void> {
    const last = deeds?.at(-1);
    if (!last || !deeds) return;
    most += AT_ONCE;
    if (deeds.length >= most || !more) return;
    try {
      deeds = [...deeds, ...(await read(last.id))];
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function undo(deed: Deed): Promise<void> {
    if (busy) return;
    busy = true;
    try {
      const path = { change_id: deed.id };
      await ask(client.POST("/api/changes/{change_id}/undo", { params: { path } }));
      notice.say("Taken back. That is a change too, and can be undone.");
      await Promise.all([load(), shop.load()]);
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
    }
  }
</script>

<LogPages title="Changes" />
<header>
  {#if about}<Action href="#/changes">All changes</Action>{/if}
</header>
<p class="soft">
  What was changed, deleted and taken back in this shop, the latest first. Any of it can be undone
  while nothing later stands on it; what was changed together is undone together.
</p>
{#if deeds}
  <ol>
    {#each deeds.slice(0, most) as deed (deed.id)}
      <li data-undone={deed.undone}>
        <p class="when">
          <span class="mono">{day(deed.at)} {time(deed.at)}</span>
          <span class="soft">{deed.who || "no name given"}</span>
        </p>
        <ul>
          {#each deed.changes as change (change.id)}
            <li>
              <strong>{change.title}</strong>
              {called("change", change.action)}{#if change.changed.length > 0}:{/if}
              {#each change.changed as line, i (line.field)}
                <span class="line"
                  >{line.field}
                  {shop.words(line.before)} → {shop.words(line.after)}{i < change.changed.length - 1
                    ? ","
                    : ""}</span
                >
              {/each}
            </li>
          {/each}
        </ul>
        <p class="act">
          {#if deed.undone}
            <span class="soft">undone</span>
          {:else if deed.held_by}
            <span class="soft">{shop.words(deed.held_by)}</span>
          {:else}
            <Action disabled={busy} onclick={() => void undo(deed)}>Undo</Action>
          {/if}
        </p>
      </li>
    {:else}
      <li class="soft">Nothing was changed yet.</li>
    {/each}
  </ol>
  {#if more || deeds.length > most}<Action onclick={() => void older()}>Older ones</Action>{/if}
{:else}
  <p class="soft">Reading …</p>
{/if}

<style>
  header {
    display: flex;
    gap: var(--s4);
    align-items: baseline;
  }
  ol,
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  ol > li {
    display: grid;
    grid-template-columns: 12rem minmax(0, 1fr) 17rem;
    overflow-wrap: anywhere;
    gap: var(--s4);
    align-items: start;
    padding: var(--s3) 0;
    border-top: var(--rule) solid var(--hairline);
  }
  ol > li[data-undone="true"] ul {
    text-decoration: line-through;
    color: var(--ink-soft);
  }
  .when {
    display: grid;
  }
  .line {
    display: inline-block;
    padding-right: var(--s2);
  }
  .act {
    text-align: right;
  }
  @media (max-width: 45em) {
    ol > li {
      grid-template-columns: minmax(0, 1fr);
      gap: var(--s1);
    }
    .act {
      text-align: left;
    }
  }
</style>
