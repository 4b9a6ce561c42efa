<script lang="ts">
  import { ask, client, wordsOf } from "../../../api/client";
  import type { Arrival, BandAnswer, LookedOverInput } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";
  import { readings, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Who from "../../../parts/fields/Who.svelte";

  interface Props {
    band: BandAnswer;
    ondone: () => void;
  }
  const { band, ondone }: Props = $props();

  const SIZES = [
    { key: "length_mm", label: "Length", kind: "length" },
    { key: "width_mm", label: "Width, tips to back", kind: "length" },
    { key: "thickness_mm", label: "Body’s thickness", kind: "thin" },
    { key: "pitch_mm", label: "Pitch: ten teeth, over ten", kind: "thin" },
    { key: "back_bow_mm", label: "Back off a metre’s straightedge", kind: "thin" },
  ] as const;
  const LOOKS = [
    { key: "weld_right", label: "Weld flush on both faces and the back" },
    { key: "direction_right", label: "Teeth point the way it runs" },
    { key: "tag_right", label: "Tag says what it is" },
  ] as const;
  type Size = (typeof SIZES)[number]["key"];
  type Look = (typeof LOOKS)[number]["key"];

  let sizes = $state<Record<Size, number | null>>({
    length_mm: null,
    width_mm: null,
    thickness_mm: null,
    pitch_mm: null,
    back_bow_mm: null,
  });
  let looks = $state<Record<Look, boolean | null>>({
    weld_right: null,
    direction_right: null,
    tag_right: null,
  });
  let left = $state("");
  let right = $state("");
  let who = $state("");
  let found = $state<Arrival | null>(null);
  let fault = $state<Said>("");

  /** Teeth typed one after the other; null where one of them cannot be read. */
  function teeth(text: string): number[] | null {
    const parts = text.split(/[\s;]+/).filter(Boolean);
    const read = parts.map((part) => readings(part, "thin", shop.units));
    return read.every((r) => r.length === 1) ? read.flat() : null;
  }
  const both = $derived([teeth(left), teeth(right)] as const);

  async function save(): Promise<void> {
    if (both[0] === null || both[1] === null) return;
    const body: LookedOverInput = {
      ...sizes,
      ...looks,
      set_left_mm: both[0],
      set_right_mm: both[1],
      who,
    };
    try {
      const params = { path: { band_id: band.id } };
      const told = await ask(client.POST("/api/bands/{band_id}/looked-over", { params, body }));
      found = told.arrival;
      fault = "";
      ondone();
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
  const SAID = { right: "passes", claim: "claim it", cannot_tell: "cannot tell yet" } as const;
</script>

<details class="no-print">
  <summary>Look it over: measured against what it was sold as</summary>
  <p class="soft">Gloves on; a coiled band springs open. Leave out what you did not look at.</p>
  <div class="fields">
    {#each SIZES as size (size.key)}
      <QuantityField
        label={size.label}
        kind={size.kind}
        value={sizes[size.key]}
        onvalue={(v) => (sizes[size.key] = v)}
      />
    {/each}
    {#if band.tpi_lo !== null}
      <label
        >Set of ten teeth, left ({shop.unit("thin")}), blanks between
        <input bind:value={left} inputmode="decimal" aria-invalid={both[0] === null} /></label
      >
      <label
        >… and right
        <input bind:value={right} inputmode="decimal" aria-invalid={both[1] === null} /></label
      >
    {/if}
  </div>
  {#each LOOKS as look (look.key)}
    <fieldset>
      <legend>{look.label}</legend>
      {#each [[true, "yes"], [false, "no"], [null, "not looked at"]] as const as [value, name] (name)}
        <label class="one"
          ><input
            type="radio"
            name="look-{look.key}"
            checked={looks[look.key] === value}
            onchange={() => (looks[look.key] = value)}
          />
          {name}</label
        >
      {/each}
    </fieldset>
  {/each}
  <div class="fields">
    <Who value={who} onpick={(name) => (who = name)} />
    <Action main disabled={both.includes(null)} onclick={() => void save()}>Record</Action>
  </div>
  {#if both.includes(null)}<p class="fault">A tooth’s set cannot be read.</p>{/if}
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if found}
    <div role="status">
      <p class="verdict" data-verdict={found.verdict}>
        <strong>{band.label}: {SAID[found.verdict]}.</strong>
        {#if found.measured_set}
          Kerf <span class="mono">{shop.say(found.measured_set.kerf_mm, "thin")}</span>.
        {/if}
      </p>
      <ul>
        {#each found.findings as f (f.key)}
          <li data-verdict={f.verdict}><strong>{f.name}</strong> {shop.words(f.words)}</li>
        {/each}
      </ul>
    </div>
  {/if}
</details>

<style>
  .fields,
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: end;
    padding-top: var(--s2);
  }
  legend {
    float: left;
    padding-right: var(--s4);
  }
  .one {
    display: inline-flex;
    gap: var(--s2);
    align-items: center;
    min-height: var(--touch);
    font-weight: 400;
  }
  input:not([type]) {
    min-height: var(--touch);
    width: min(22rem, 100%);
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
  }
  .fault,
  [data-verdict="claim"] {
    color: var(--vermilion);
  }
  li[data-verdict="cannot_tell"] {
    color: var(--ink-soft);
  }
  .verdict {
    padding-top: var(--s3);
    font-size: var(--text-large);
  }
</style>
