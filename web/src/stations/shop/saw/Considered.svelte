<script lang="ts">
  import { askPatiently, client } from "../../../api/client";
  import type { ConsideredAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";

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
</script>

<h1>{saw?.saw.name ?? "A saw"}, asked with your jobs</h1>
{#if answer}
  <p class="sum"><strong>{answer.words}</strong></p>
  <p class="soft">
    Each job with a new band of a common type on either saw, your prices and house rules. Prices of
    the saw itself and its upkeep are not in it.
  </p>
  <table>
    <thead>
      <tr>
        <th>Job</th><th>It</th><th>A piece here</th><th>On yours</th><th>With</th>
      </tr>
    </thead>
    <tbody>
      {#each answer.lines as line (line.job_id)}
        <tr data-stands={line.stands}>
          <td>{line.name}</td>
          <td>
            <strong>{line.said}</strong>{#if line.saved !== null && line.stands !== "same"}, {shop.money(
                Math.abs(line.saved),
              )} over the job{/if}
          </td>
          <td class="mono">{line.cost === null ? "–" : shop.money(line.cost)}</td>
          <td>
            {#if line.own_cost !== null}<span class="mono">{shop.money(line.own_cost)}</span>
              {line.own_saw}{:else}–{/if}
          </td>
          <td>
            {#if line.feed_m_min !== null}{line.band}, {shop.say(line.feed_m_min, "feed")}
            {:else}<span class="soft">{shop.words(line.words)}</span>{/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
{:else}
  <p class="soft">Asking it with each job …</p>
{/if}
<p><Action href="#/shop/saws/{id}">Its figures</Action></p>

<style>
  .sum {
    font-size: var(--text-large);
    max-width: 46rem;
  }
  th,
  td {
    padding: var(--s2) var(--s3) var(--s2) 0;
  }
  @media (max-width: 40em) {
    thead {
      display: none;
    }
    td {
      display: block;
      border-top: 0;
      padding: 0;
    }
    tr {
      display: block;
      border-top: var(--hair) solid var(--hairline);
      padding: var(--s2) 0;
    }
  }
</style>
