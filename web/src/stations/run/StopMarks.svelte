<script lang="ts">
  import type { RunInput } from "../../api/schema";
  import { called, choicesOf } from "../../lib/forms";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  type Stops = NonNullable<RunInput["stops"]>;
  interface Props {
    stops: Stops;
    /** Of the piece, mm. */
    length_mm: number;
    onstops: (stops: Stops) => void;
  }
  const { stops, length_mm, onstops }: Props = $props();
  let open = $state(false);
  let along = $state<number | null>(null);
  const bad = $derived(along !== null && (along < 0 || along > length_mm));

  function add(why: Stops[number]["why"]): void {
    if (along === null || bad) return;
    onstops([...stops, { along_mm: along, why }]);
    along = null;
  }
</script>

<details bind:open>
  <summary>The feed stopped{stops.length ? `: ${stops.length}` : ""}</summary>
  <div class="row">
    <QuantityField
      label="How far along the piece"
      kind="length"
      value={along}
      error={bad ? `is past the end; accepted: 0 to ${shop.say(length_mm, "length")}` : ""}
      onvalue={(v) => (along = v)}
    />
    <fieldset disabled={along === null || bad}>
      <legend>Why</legend>
      {#each choicesOf<NonNullable<Stops[number]["why"]>>("stop_why") as why (why.key)}
        <button type="button" onclick={() => add(why.key)}>{why.name}</button>
      {/each}
    </fieldset>
  </div>
  <ul>
    {#each stops as stop, i (i)}
      <li>
        <span class="mono">{shop.say(stop.along_mm, "length")}</span>
        {called("stop_why", stop.why ?? "other")}
        <Action onclick={() => onstops(stops.filter((_, j) => j !== i))}>Remove</Action>
      </li>
    {/each}
  </ul>
</details>

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
  }
  button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    border: var(--hair) solid var(--ink);
  }
  fieldset:disabled button {
    color: var(--ink-soft);
    border-color: var(--hairline);
  }
  li {
    display: flex;
    gap: var(--s3);
    align-items: center;
  }
</style>
