<script lang="ts">
  import { ask, askPatiently, client } from "../../../api/client";
  import type { CopiesAnswer, CopyLine } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { ago, day, fileSize, time } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import SampleDoor from "../../start/SampleDoor.svelte";
  import ShopPages from "../ShopPages.svelte";

  let found = $state<CopiesAnswer | null>(null);
  let busy = $state(false);
  let asking = $state("");

  async function load(): Promise<void> {
    found = await askPatiently(() => client.GET("/api/copies"));
  }
  load().catch((p: unknown) => notice.fail(p));

  async function busily(work: () => Promise<void>): Promise<void> {
    busy = true;
    try {
      await work();
      await load();
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
    }
  }

  const take = () =>
    busily(async () => {
      await ask(client.POST("/api/copies"));
      notice.say("A copy is taken.");
    });

  const restore = (copy: CopyLine) =>
    busily(async () => {
      asking = "";
      await ask(client.POST("/api/copies/restore", { body: { name: copy.name } }));
      await shop.load();
      notice.say(`The shop is as it was on ${day(copy.at)}, ${time(copy.at)}.`);
    });
</script>

<ShopPages title="Copies and exports" />
{#if found}
  <section>
    <h2>Copies</h2>
    <p class="newest" data-warning={found.warning !== ""} role="status">
      {found.warning || (found.newest_at ? `The newest copy is ${ago(found.newest_at)} old.` : "")}
    </p>
    <p class="soft">{found.keeping}</p>
    <p class="soft">
      They lie in <span class="mono path">{found.folder}</span>. Take one elsewhere now and then: a
      copy beside the file is lost with its disk.
    </p>
    <div class="actions">
      <Action main disabled={busy} onclick={() => void take()}>Take a copy now</Action>
    </div>
    <ul class="rows">
      {#each found.copies as copy (copy.name)}
        <li>
          <span>{day(copy.at)}, {time(copy.at)}</span>
          <span class="soft">{copy.why}, {fileSize(copy.size)}</span>
          {#if asking === copy.name}
            <span class="sure" role="alert">
              Everything recorded since then is taken out of the shop. It is put in a copy first.
              <Action main disabled={busy} onclick={() => void restore(copy)}
                >Restore {day(copy.at)}</Action
              >
              <Action onclick={() => (asking = "")}>Cancel</Action>
            </span>
          {:else}
            <Action disabled={busy} onclick={() => (asking = copy.name)}>Restore …</Action>
          {/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
<section>
  <h2>Take away</h2>
  <p>
    Everything as CSV, one file a table with units in its headings, photographs beside; or the whole
    file, as <span class="mono">jade-ribbon restore</span> takes it.
  </p>
  <div class="actions">
    <a href="/export.zip" download>Everything as CSV (zip)</a>
    <a href="/shop.sqlite" download>The whole file</a>
  </div>
</section>
<section>
  <h2>Sample yard</h2>
  <SampleDoor />
</section>

<style>
  section {
    padding: var(--s3) 0 var(--s5);
    max-width: 60rem;
  }
  .newest {
    font-size: var(--text-large);
  }
  .newest[data-warning="true"] {
    color: var(--vermilion);
    font-weight: 600;
  }
  .path {
    overflow-wrap: anywhere;
  }
  .actions {
    padding: var(--s3) 0;
  }
  .actions a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    color: var(--jade);
  }
  li {
    grid-template-columns: 12rem 1fr auto;
  }
  .sure {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
    padding-bottom: var(--s3);
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
