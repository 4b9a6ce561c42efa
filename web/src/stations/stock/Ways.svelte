<script lang="ts">
  import Wide from "../../parts/Wide.svelte";
  import type { BilletPlanAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { tenth } from "./stock";

  const { billet, count }: { billet: BilletPlanAnswer; count: number } = $props();
  const NAMES = { true_first: "trued first", along_curve: "along its curve" } as const;
</script>

<section aria-label="Ways to saw it">
  <h2>{shop.words(billet.worth.words)}</h2>
  {#if billet.worth.flatten_words}<p>{shop.words(billet.worth.flatten_words)}</p>{/if}
  <Wide label="Ways side by side"
    ><table>
      <thead>
        <tr><th>Way</th><th>Pieces</th><th>Left over</th><th>Of its wood</th><th>A piece</th></tr>
      </thead>
      <tbody>
        {#each billet.worth.ways as way (way.key)}
          <tr data-best={way.key === billet.worth.best}>
            <th scope="row">{NAMES[way.key]}</th>
            <td class="mono">{way.pieces}{way.enough ? "" : ` of ${count}`}</td>
            <td class="mono">{shop.say(tenth(way.left_over_mm), "length")}</td>
            <td class="mono">{(100 * way.piece_share).toFixed(0)} %</td>
            <td class="mono">{way.money_a_piece === null ? "–" : shop.money(way.money_a_piece)}</td>
          </tr>
        {/each}
        {#if billet.worth.planed_a_piece !== null}
          <tr>
            <th scope="row">planed from thicker stock</th>
            <td></td><td></td><td></td>
            <td class="mono">{shop.money(billet.worth.planed_a_piece)}</td>
          </tr>
        {/if}
      </tbody>
    </table></Wide
  >
  {#if billet.worth.planed_words}<p>{shop.words(billet.worth.planed_words)}</p>{/if}
</section>

<style>
  section {
    padding: var(--s3) 0;
  }
  table {
    min-width: 32rem;
  }
  th,
  td {
    padding: var(--s2) var(--s5) var(--s2) 0;
    border-bottom: var(--hair) solid var(--hairline);
    font-weight: 400;
  }
  thead th {
    font-size: var(--text-small);
  }
  [data-best="true"] th,
  [data-best="true"] td {
    font-weight: 650;
  }
</style>
