<script lang="ts">
  import { onDestroy } from "svelte";

  import type { Rates, Shop } from "../../../api/schema";
  import { fieldsOf } from "../../../lib/forms";
  import { shop } from "../../../lib/shop.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import { SettingsEdit } from "./shopEdit.svelte";
  import ShopPages from "../ShopPages.svelte";

  const edit = new SettingsEdit();
  onDestroy(() => edit.now());
</script>

<ShopPages title="Prices and rates" />
{#if shop.settings}
  <div class="fields">
    {#each fieldsOf<keyof Rates>("rates") as line (line.key)}
      <QuantityField
        label={line.label}
        kind={line.kind}
        value={shop.settings.rates[line.key] ?? null}
        error={edit.faults[`rates.${line.key}`] ?? ""}
        help={line.help}
        required
        onvalue={(v) => edit.rate(line.key, v)}
      />
    {/each}
  </div>
  <h2>Sharpening and spares</h2>
  <div class="fields">
    {#each fieldsOf<keyof Shop["rack"]>("terms") as line (line.key)}
      <QuantityField
        label={line.label}
        kind="plain"
        value={shop.settings.rack[line.key] ?? null}
        error={edit.faults[`rack.${line.key}`] ?? ""}
        help={line.help}
        required
        onvalue={(v) => edit.term(line.key, v)}
      />
    {/each}
  </div>
{/if}

<style>
  .fields {
    padding: var(--s3) 0 var(--s5);
  }
</style>
