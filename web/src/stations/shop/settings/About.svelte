<script lang="ts">
  import { onDestroy } from "svelte";

  import { shop } from "../../../lib/shop.svelte";
  import { remember } from "../../../lib/storage";
  import type { Units } from "../../../lib/figures/units";
  import Choices from "../../../parts/fields/Choices.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import { SettingsEdit } from "./shopEdit.svelte";
  import ShopPages from "../ShopPages.svelte";

  const edit = new SettingsEdit();
  onDestroy(() => edit.now());

  function units(choice: Units): void {
    shop.units = choice;
    remember("units", choice);
    void edit.save({ units: choice });
  }
</script>

<ShopPages title="This shop" />
{#if shop.settings}
  <div class="fields">
    <label
      >Name<input
        value={shop.settings.name}
        onchange={(e) => void edit.save({ name: e.currentTarget.value })}
      /></label
    >
    <label
      >Currency<input
        value={shop.settings.currency}
        onchange={(e) => void edit.save({ currency: e.currentTarget.value })}
      /></label
    >
    <label
      >People, one a line<textarea
        rows="4"
        value={shop.settings.people.join("\n")}
        onchange={(e) =>
          void edit.save({
            people: e.currentTarget.value
              .split("\n")
              .map((p) => p.trim())
              .filter(Boolean),
          })}></textarea></label
    >
    <Choices
      legend="Units"
      chosen={shop.settings.units}
      options={[
        { key: "metric", name: "mm, m/min, MPa" },
        { key: "inch", name: "inches, ft/min, psi" },
      ]}
      onchoose={units}
    />
    <Choices
      legend="Paper"
      chosen={shop.settings.paper}
      options={[
        { key: "a4", name: "A4" },
        { key: "letter", name: "Letter" },
      ]}
      onchoose={(paper) => void edit.save({ paper })}
    />
    <QuantityField
      label="Length of your strain gauge"
      kind="length"
      value={shop.settings.gauge_length_mm}
      error={edit.faults.gauge_length_mm ?? ""}
      help="Between its jaws."
      required
      onvalue={(v) => {
        if (v !== null) edit.soon(() => ({ gauge_length_mm: v }));
      }}
    />
  </div>
{/if}

<style>
  .fields {
    padding: var(--s3) 0 var(--s5);
  }
  input,
  textarea {
    width: 100%;
  }
</style>
