<script lang="ts">
  import Wide from "../../parts/Wide.svelte";
  import { askPatiently, client } from "../../api/client";
  import type { TypeLine } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import Action from "../../parts/Action.svelte";
  import Term from "../../parts/Term.svelte";
  import { pitchWords, TYPE_ORDERS, typesLike, type TypeFilter, type TypeOrder } from "./typeTable";

  const AT_FIRST = 20;
  const MOST_BESIDE = 4;
  let types = $state<TypeLine[] | null>(null);
  let filter = $state<TypeFilter>({ form: "", steel: "", widest_mm: null, turns_mm: null });
  let order = $state<TypeOrder>("table");
  let most = $state(AT_FIRST);
  let beside = $state<number[]>([]);
  askPatiently(() => client.GET("/api/types"))
    .then((list) => (types = list))
    .catch((p: unknown) => notice.fail(p));

  const shown = $derived(typesLike(types ?? [], filter, order));
  const compared = $derived((types ?? []).filter((t) => beside.includes(t.number)));
  const FACTS = [
    ["width", (t: TypeLine) => shop.say(t.width_mm, "length"), "width"],
    ["thickness", (t: TypeLine) => shop.say(t.thickness_mm, "thin"), "thickness"],
    ["teeth", pitchWords, "tpi"],
    ["tooth form", (t: TypeLine) => shop.form(t.form), "form"],
    ["steel", (t: TypeLine) => shop.steel(t.steel), "steel"],
    ["kerf in dry hardwood", (t: TypeLine) => shop.say(t.kerf_mm, "thin"), "kerf"],
    ["tightest radius", (t: TypeLine) => shop.say(t.tightest_mm, "length"), "radius"],
    [
      "smallest wheel for long life",
      (t: TypeLine) => shop.say(t.smallest_wheel_mm, "length"),
      "bending",
    ],
    ["finest face", (t: TypeLine) => shop.reference?.finishes[t.finest] ?? t.finest, "finish"],
    ["price a metre", (t: TypeLine) => shop.money(t.price_per_m), ""],
    ["on the rack", (t: TypeLine) => String(t.on_rack), ""],
  ] as const;

  function look(change: Partial<TypeFilter>): void {
    filter = { ...filter, ...change };
    most = AT_FIRST;
  }

  function compare(number: number): void {
    beside = beside.includes(number)
      ? beside.filter((n) => n !== number)
      : [...beside, number].slice(-MOST_BESIDE);
  }
</script>

<div class="filters">
  <label>
    Tooth form
    <select value={filter.form} onchange={(e) => look({ form: e.currentTarget.value })}>
      <option value="">any</option>
      {#each shop.reference?.forms ?? [] as form (form.key)}<option value={form.key}
          >{form.short}</option
        >{/each}
    </select>
  </label>
  <label>
    Steel
    <select value={filter.steel} onchange={(e) => look({ steel: e.currentTarget.value })}>
      <option value="">any</option>
      {#each shop.reference?.steels ?? [] as steel (steel.key)}<option value={steel.key}
          >{steel.short}</option
        >{/each}
    </select>
  </label>
  <label>
    For saw
    <select
      onchange={(e) =>
        look({
          widest_mm: shop.saw(Number(e.currentTarget.value))?.saw.band_width_mm[1] ?? null,
        })}
    >
      <option value="">any</option>
      {#each shop.saws as saw (saw.id)}<option value={String(saw.id)}>{saw.saw.name}</option>{/each}
    </select>
  </label>
  <QuantityField
    label="Turns"
    kind="length"
    term="radius"
    value={filter.turns_mm}
    onvalue={(v) => look({ turns_mm: v })}
  />
  <label>
    Sort by
    <select value={order} onchange={(e) => (order = e.currentTarget.value as TypeOrder)}>
      {#each Object.entries(TYPE_ORDERS) as [key, { name }] (key)}<option value={key}>{name}</option
        >{/each}
    </select>
  </label>
  <p class="soft" role="status">
    {types ? `${shown.length} of ${types.length} types` : "Reading …"}
  </p>
</div>
{#if compared.length > 1}
  <Wide label="Types side by side">
    <table>
      <thead>
        <tr
          ><th scope="col">Beside each other</th>
          {#each compared as t (t.number)}<th scope="col">{shop.typeName(t)}</th>{/each}</tr
        >
      </thead>
      <tbody>
        {#each FACTS as [name, of, term] (name)}
          <tr>
            <th scope="row"
              >{#if term}<Term key={term}>{name}</Term>{:else}{name}{/if}</th
            >
            {#each compared as t (t.number)}<td>{of(t)}</td>{/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
<ul class="rows">
  {#each shown.slice(0, most) as t (t.number)}
    <li>
      <strong class="mono"
        >{shop.number(t.width_mm, "length")} × {shop.say(t.thickness_mm, "thin")}</strong
      >
      <span>{pitchWords(t)} {shop.form(t.form)}, {shop.steel(t.steel)}{t.own ? " (own)" : ""}</span>
      <span class="soft"
        >kerf {shop.say(t.kerf_mm, "thin")}, turns {shop.say(t.tightest_mm, "length")}</span
      >
      <span class="mono">{shop.money(t.price_per_m)} / m</span>
      <span>{t.on_rack > 0 ? `${t.on_rack} on the rack` : ""}</span>
      <button
        type="button"
        aria-pressed={beside.includes(t.number)}
        aria-label="Compare {shop.typeName(t)}"
        onclick={() => compare(t.number)}>compare</button
      >
    </li>
  {/each}
</ul>
{#if shown.length > most}
  <Action onclick={() => (most += AT_FIRST)}>{shown.length - most} more</Action>
{/if}

<style>
  .filters {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    padding: var(--s3) 0;
  }
  select,
  li button {
    min-height: var(--touch);
    background: var(--paper);
    border-bottom: var(--rule) solid var(--ink);
    font-weight: 400;
  }
  li {
    grid-template-columns: 9rem 1.6fr 1.4fr auto 7rem auto;
  }
  li button {
    background: none;
    border-bottom-color: var(--hairline);
    padding: 0 var(--s2);
  }
  li button[aria-pressed="true"] {
    background: var(--jade-pale);
  }
  tbody th {
    font-weight: 400;
    color: var(--ink-soft);
  }
  @media (max-width: 56.25em) {
    li {
      grid-template-columns: 1fr auto;
      padding: var(--s2) 0;
    }
  }
</style>
