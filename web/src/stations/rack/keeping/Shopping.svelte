<script lang="ts">
  import { askPatiently, client } from "../../../api/client";
  import type { ShoppingLine } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";
  import RackPages from "../RackPages.svelte";
  import Spares from "./Spares.svelte";

  let lines = $state<ShoppingLine[] | null>(null);
  askPatiently(() => client.GET("/api/shopping"))
    .then((found) => (lines = found))
    .catch((p: unknown) => notice.fail(p));
  const total = $derived((lines ?? []).reduce((sum, l) => sum + l.price * l.count, 0));
</script>

<RackPages title="Shopping and spares" />
<h2>For the open jobs</h2>
<p class="soft">What the open jobs want and the rack cannot give.</p>
{#if lines}
  <ul>
    {#each lines as line (line.label + line.length_mm)}
      <li>
        <span class="mono count">{line.count} ×</span>
        <span>
          <strong class="mono"
            >{shop.number(line.width_mm, "length")} × {shop.number(
              line.thickness_mm,
              "thin",
            )}</strong
          >
          {line.tpi_lo === null
            ? "continuous"
            : `${line.tpi_lo === line.tpi_hi ? line.tpi_lo : `${line.tpi_lo}–${line.tpi_hi}`} tpi`}
          {shop.form(line.form)}, {shop.steel(line.steel)}, welded to
          <strong class="mono">{shop.say(line.length_mm, "length")}</strong>
          <br /><span class="soft">For {line.jobs.join(", ")}. {shop.words(line.why)}.</span>
        </span>
        <span class="mono">{shop.money(line.price * line.count)}</span>
      </li>
    {:else}
      <li class="none">Nothing: the rack can do every open job.</li>
    {/each}
  </ul>
  {#if lines.length > 0}<p class="total">
      About <strong class="mono">{shop.money(total)}</strong>.
    </p>{/if}
  <div class="no-print actions">
    <Action onclick={() => window.print()}>Print</Action>
    <Action href="#/rack">Rack</Action>
  </div>
{:else}
  <p class="soft">Working through the open jobs …</p>
{/if}
<Spares />

<style>
  ul {
    margin-top: var(--s3);
    border-top: var(--rule) solid var(--ink);
  }
  li {
    display: grid;
    grid-template-columns: 4rem 1fr auto;
    gap: var(--s3);
    padding: var(--s3) 0;
    border-bottom: var(--hair) solid var(--hairline);
  }
  .none {
    display: block;
  }
  .count {
    font-size: var(--text-large);
    font-weight: 700;
  }
  .total {
    padding: var(--s3) 0;
  }
</style>
