<script lang="ts">
  import { askPatiently, client } from "../../../api/client";
  import type { ConsideredAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";
  import Wide from "../../../parts/Wide.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id) || 0);
  const saw = $derived(shop.saw(id));
  let answer = $state<ConsideredAnswer | null>(null);

  $effect(() => {
    const path = { saw_id: id };
    askPatiently(() => client.GET("/api/saws/{saw_id}/considered", { params: { path } }))
      .then((found) => (answer = found))
      .catch((p: unknown) => notice.fail(p));
  });

  const STANDS = {
    cheaper: "cheaper",
    dearer: "dearer",
    same: "about the same",
    only_new: "only this one can",
    only_own: "it cannot",
    neither: "neither can",
  } as const;
</script>

<h1>{saw?.saw.name ?? "A saw"}, asked with your jobs</h1>
{#if answer}
  <p class="sum"><strong>{answer.words}</strong></p>
  <p class="soft">
    Each job with a new band of a common type on either saw, your prices and house rules. Prices of
    the saw itself and its upkeep are not in it.
  </p>
  <Wide label="Each job on either saw">
    <table>
      <thead>
        <tr><th>Job</th><th>Here</th><th>A piece</th><th>Your saws</th><th>A piece</th><th></th></tr
        >
      </thead>
      <tbody>
        {#each answer.lines as line (line.job_id)}
          <tr data-stands={line.stands}>
            <td>{line.name}</td>
            <td>
              {#if line.feed_m_min !== null}{line.band}, {shop.say(line.feed_m_min, "feed")}
              {:else}<span class="soft">{shop.words(line.words)}</span>{/if}
            </td>
            <td class="mono">{line.cost === null ? "" : shop.money(line.cost)}</td>
            <td>{line.own_saw}</td>
            <td class="mono">{line.own_cost === null ? "" : shop.money(line.own_cost)}</td>
            <td>
              <strong>{STANDS[line.stands]}</strong
              >{#if line.saved !== null && line.stands !== "same"}, {shop.money(
                  Math.abs(line.saved),
                )} over the job{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{:else}
  <p class="soft">Asking it with each job …</p>
{/if}
<p><Action href="#/shop/saws/{id}">Its figures</Action></p>

<style>
  .sum {
    font-size: var(--text-large);
    max-width: 46rem;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: var(--s2) var(--s3) var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
</style>
