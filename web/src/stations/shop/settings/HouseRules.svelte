<script lang="ts">
  import { onDestroy } from "svelte";

  import { shop } from "../../../lib/shop.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import { SettingsEdit } from "./shopEdit.svelte";
  import ShopPages from "../ShopPages.svelte";

  const edit = new SettingsEdit();
  onDestroy(() => edit.now());

  function rule(key: string, choice: string): void {
    if (shop.settings) void edit.save({ rules: { ...shop.settings.rules, [key]: choice } });
  }
</script>

<ShopPages title="House rules" />
{#if shop.settings && shop.reference}
  <section>
    <p class="soft">
      Where experienced people differ. Each result names the rule it leaned on; a job may override
      it.
    </p>
    <div class="rules">
      {#each shop.reference.rules as r (r.key)}
        <div class="rule">
          <label for="rule-{r.key}">{r.title}</label>
          <select
            id="rule-{r.key}"
            value={shop.settings.rules[r.key]}
            onchange={(e) => rule(r.key, e.currentTarget.value)}
          >
            {#each r.choices as choice, i (choice)}<option value={choice}
                >{shop.words(r.choice_names[i] ?? "")}{choice === r.default
                  ? " (usual)"
                  : ""}</option
              >{/each}
          </select>
          <p class="soft">{shop.words(r.why)}</p>
        </div>
      {/each}
    </div>
    <QuantityField
      label="Guard above the work"
      kind="length"
      usual="guard_gap_mm"
      value={shop.settings.guard_gap_mm}
      error={edit.faults.guard_gap_mm ?? ""}
      help="As near as the work lets it; more asks for a reason."
      required
      onvalue={(v) => {
        if (v !== null) edit.soon(() => ({ guard_gap_mm: v }));
      }}
    />
  </section>
{/if}

<style>
  .rules {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(21rem, 100%), 1fr));
    gap: 0 var(--s5);
  }
  .rule {
    align-content: start;
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .rule p {
    font-size: var(--text-small);
  }
  select {
    width: 100%;
  }
</style>
