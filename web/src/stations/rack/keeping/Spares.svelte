<script lang="ts">
  import { askPatiently, client, ask, wordsOf } from "../../../api/client";
  import type { PriceLook, Spares } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { fixed, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";

  /** What to keep of each type, and when to order; a price asked held against those paid. */
  let spares = $state<Spares | null>(null);
  let all = $state(false);
  let asked = $state<Record<number, number | null>>({});
  let looks = $state<Record<number, PriceLook>>({});
  let fault = $state<Said>("");
  askPatiently(() => client.GET("/api/rack/spares"))
    .then((found) => (spares = found))
    .catch((problem: unknown) => (fault = wordsOf(problem)));

  const WORDS = { order: "order", enough: "enough", cannot_tell: "cannot tell yet" } as const;
  const lines = $derived((spares?.lines ?? []).map((line, at) => ({ line, at })));
  const shown = $derived(all ? lines : lines.filter((l) => l.line.verdict !== "enough"));

  async function look(at: number): Promise<void> {
    const line = spares?.lines[at];
    const price = asked[at];
    if (!line || price === null || price === undefined) return;
    const { width_mm, thickness_mm, tpi_lo, tpi_hi, form, steel, length_mm } = line;
    const body = { width_mm, thickness_mm, tpi_lo, tpi_hi, form, steel, length_mm, price };
    try {
      looks[at] = await ask(client.POST("/api/rack/price", { body }));
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<section aria-label="Spares">
  <h2>Spares</h2>
  {#if spares}
    <p class="soft">
      {spares.words} <a href="#/shop/prices">Change it</a>.
    </p>
    <ul class="rows">
      {#each shown as { line, at } (at)}
        <li data-verdict={line.verdict}>
          <span class="what"
            ><strong>{shop.typeName(line)}</strong>, {shop.say(line.length_mm, "length")}
            <span class="soft">{line.saws.join(", ") || "fits no saw here"}</span></span
          >
          <span
            ><strong>{WORDS[line.verdict]}{line.order > 0 ? ` ${line.order}` : ""}</strong>
            <span class="soft"
              >{line.have} here{line.out > 0 ? `, ${line.out} of them out` : ""}; {line.used_up} used
              up in {fixed(line.weeks, 0)} weeks; order at {line.reorder_at}; chance of running out
              {shop.chance(line.chance_short)}</span
            >
            {#if line.from_coil > 0}<a href="#/rack/made">{line.from_coil} from the coil</a>{/if}
          </span>
          <span class="price">
            <QuantityField
              label="A price asked"
              kind="plain"
              value={asked[at] ?? null}
              onvalue={(v) => (asked[at] = v)}
            />
            <Action onclick={() => void look(at)}>Dear?</Action>
            {#if looks[at]}<span role="status">{looks[at].words}</span>{/if}
          </span>
        </li>
      {:else}
        <li>Enough of everything.</li>
      {/each}
    </ul>
    <Action onclick={() => (all = !all)}
      >{all ? "Only what is short" : `All ${spares.lines.length} types`}</Action
    >
  {:else if !fault}
    <p class="soft">Reading what was used up …</p>
  {/if}
  {#if fault}<p role="alert" class="fault">{shop.words(fault)}</p>{/if}
</section>

<style>
  section {
    padding-top: var(--s5);
  }
  li {
    grid-template-columns: minmax(12rem, 1fr) minmax(14rem, 1.2fr) auto;
    gap: var(--s2) var(--s4);
    padding: var(--s2) 0;
  }
  [data-verdict="order"] > span strong:first-child {
    color: var(--brass-text);
  }
  .price {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
    align-items: end;
    max-width: 22rem;
  }
  @media (max-width: 56.25em) {
    li {
      grid-template-columns: 1fr;
    }
  }
</style>
