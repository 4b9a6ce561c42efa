<script lang="ts">
  import type { SawInput } from "../../../api/schema";
  import { choicesOf, fieldsOf } from "../../../lib/forms";
  import type { Said } from "../../../lib/figures/units";
  import { shop } from "../../../lib/shop.svelte";
  import Action from "../../../parts/Action.svelte";
  import Choices from "../../../parts/fields/Choices.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";

  type Drive = SawInput["drive"];
  interface Props {
    drive: Drive;
    faults: Record<string, Said>;
    onconfirm?: (() => void) | undefined;
    onchange: (drive: Drive) => void;
  }
  const { drive, faults, onconfirm, onchange }: Props = $props();

  const speeds = $derived((drive.speeds_m_s ?? []) as (number | null)[]);
  const shown = $derived(speeds.length > 0 ? speeds : [null]);

  function speed(at: number, value: number | null): void {
    const list = [...shown];
    list[at] = value;
    onchange({ kind: "fixed", speeds_m_s: list as number[] });
  }
</script>

<div>
  <Choices
    legend="Drive"
    chosen={drive.kind}
    options={choicesOf<Drive["kind"]>("drive")}
    {onconfirm}
    onchoose={(kind) =>
      onchange(
        kind === "fixed"
          ? { kind, speeds_m_s: [] }
          : { kind, base_hz: 50, min_hz: 15, max_hz: 60, base_speed_m_s: null },
      )}
  />
  {#if drive.kind === "fixed"}
    {#each shown as value, at (at)}
      <QuantityField
        label={shown.length > 1 ? `Band speed, step ${at + 1}` : "Band speed"}
        kind="speed"
        usual="speed_m_s"
        {value}
        error={faults[`drive.speeds_m_s.${at}`] ?? (at === 0 ? (faults.drive ?? "") : "")}
        onvalue={(v) => speed(at, v)}
      />
    {/each}
    <div class="steps">
      <Action
        onclick={() =>
          onchange({ kind: "fixed", speeds_m_s: [...shown, null] as unknown as number[] })}
        >Another step</Action
      >
      {#if shown.length > 1}
        <Action
          onclick={() =>
            onchange({ kind: "fixed", speeds_m_s: shown.slice(0, -1) as unknown as number[] })}
          >One step less</Action
        >
      {/if}
    </div>
  {:else}
    {#each fieldsOf<Exclude<keyof Drive, "kind" | "speeds_m_s">>("inverter") as line (line.key)}
      <QuantityField
        label={line.label}
        kind={line.kind}
        usual={line.quantity}
        value={drive[line.key] ?? null}
        error={faults[`drive.${line.key}`] ??
          (line.key === "base_speed_m_s" ? (faults.drive ?? "") : "")}
        onvalue={(v) => onchange({ ...drive, [line.key]: v })}
      />
    {/each}
  {/if}
  {#if faults["drive.speeds_m_s"]}<p class="fault">{shop.words(faults["drive.speeds_m_s"])}</p>{/if}
</div>

<style>
  .steps {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
  }
</style>
