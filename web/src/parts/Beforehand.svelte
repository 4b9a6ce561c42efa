<script lang="ts">
  import { ask, client } from "../api/client";
  import type { Asked, Beforehand } from "../api/schema";
  import { notice } from "../lib/notice.svelte";
  import { day } from "../lib/figures/units";
  import Action from "./Action.svelte";

  /** What has gone wrong on a job's saw with such work; and whether a remedy helped. */
  interface Props {
    job_id: number;
    /** Whatever tells that something was done since: it is asked anew. */
    since?: unknown;
    /** Remedies done are asked about: at the run. */
    asks?: boolean;
  }
  const { job_id, since, asks = false }: Props = $props();
  let found = $state.raw<Beforehand | null>(null);

  async function load(id: number): Promise<void> {
    found = await ask(client.GET("/api/faults/before", { params: { query: { job_id: id } } }));
  }
  // The job, and what was done with it, name what is asked. Without a network it is left out.
  $effect(() => {
    void since;
    load(job_id).catch(() => (found = null));
  });

  async function went({ id, cause }: Asked, gone: boolean): Promise<void> {
    const params = { path: { trouble_id: id } };
    try {
      if (gone) {
        const body = { causes: [cause] };
        const done = await ask(client.POST("/api/faults/{trouble_id}/close", { params, body }));
        if (done.change_id) {
          notice.canUndo("The trouble is closed.", done.change_id, () => load(job_id));
        }
      } else {
        await ask(client.POST("/api/faults/{trouble_id}/still", { params }));
        globalThis.location.hash = `#/faults/${id}`;
      }
      await load(job_id);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

{#if found}
  {#if found.line}<p class="soft">{found.line} <a href="#/faults/book">Trouble book</a></p>{/if}
  {#each found.open as t (t.id)}
    <p class="open">
      <span>Not closed: <a href="#/faults/{t.id}">{t.signs.join(", ")}</a>, {day(t.at)}</span>
    </p>
  {/each}
  {#if asks}
    {#each found.asks as a (a.id)}
      <div class="open" role="group" aria-label="Did it go?">
        <p>
          <strong>Did it go: {a.sign}?</strong>
          <span class="soft"
            >Mended: {a.remedy}. {a.ran ? "The saw has cut since." : "Cut first, then say."}</span
          >
        </p>
        <Action onclick={() => void went(a, true)}>It went</Action>
        <Action onclick={() => void went(a, false)}>Still there</Action>
      </div>
    {/each}
  {/if}
{/if}

<style>
  .open {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    align-items: center;
    padding-left: var(--s3);
    border-left: var(--s2) solid var(--brass);
  }
  p a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
  }
</style>
