<script lang="ts">
  import { askPatiently, client } from "../../../api/client";
  import type { BandAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import RackPages from "../RackPages.svelte";

  let bands = $state<BandAnswer[] | null>(null);
  let chosen = $state<number[]>([]);
  let kind = $state("a4-24");
  let start = $state(1);
  askPatiently(() => client.GET("/api/bands"))
    .then((found) => (bands = found.filter((b) => b.state !== "scrapped")))
    .catch((p: unknown) => notice.fail(p));
  const kinds = $derived(shop.reference?.label_kinds ?? []);
  const one = $derived(kinds.find((k) => k.key === kind));
  const address = $derived(
    `/labels.pdf?bands=${chosen.join(",")}&kind=${kind}&start=${Math.min(start, one?.a_page ?? 1)}`,
  );
  const MOST = 150;
  const pick = (id: number) =>
    (chosen = chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id].slice(-MOST));
</script>

<RackPages title="Labels" />
<p class="soft">
  Tag, what it is, its length, the saws it fits, and a code that opens its page on a phone of the
  shop’s network. Print at 100 %.
</p>
<div class="form">
  <label
    >Sheet or roll<select bind:value={kind}>
      {#each kinds as k (k.key)}<option value={k.key}>{k.name}</option>{/each}
    </select></label
  >
  {#if one && one.a_page > 1}
    <QuantityField
      label="First free place of the sheet, of {one.a_page}"
      kind="plain"
      value={start}
      onvalue={(v) => (start = Math.max(1, Math.round(v ?? 1)))}
    />
  {/if}
  <Action main disabled={chosen.length === 0} href={chosen.length > 0 ? address : undefined}
    >{chosen.length} {chosen.length === 1 ? "label" : "labels"}</Action
  >
  <Action onclick={() => (chosen = (bands ?? []).map((b) => b.id).slice(0, MOST))}>All</Action>
  <Action onclick={() => (chosen = [])}>None</Action>
</div>
<ul>
  {#each bands ?? [] as b (b.id)}
    <li>
      <label
        ><input type="checkbox" checked={chosen.includes(b.id)} onchange={() => pick(b.id)} />
        <span class="mono">{b.label}</span>
        <span class="soft">{shop.typeName(b)}, {shop.say(b.length_mm, "length")}</span></label
      >
    </li>
  {:else}
    {#if bands}<li>No band is on the rack.</li>{/if}
  {/each}
</ul>

<style>
  .form {
    padding: var(--s3) 0;
  }
  .form label {
    display: grid;
  }
  ul {
    columns: 24rem;
  }
  li label {
    display: flex;
    gap: var(--s2);
    align-items: center;
    min-height: var(--touch);
  }
  li .mono {
    min-width: 5rem;
    font-weight: 650;
  }
</style>
