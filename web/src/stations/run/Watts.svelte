<script lang="ts">
  import { choicesOf } from "../../lib/forms";
  import type { OwnPressure } from "../../api/schema";
  import Choices from "../../parts/fields/Choices.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import type { Motor, RunForm } from "./form";

  interface Props {
    form: RunForm;
    motor: Motor;
    /** What this shop's runs have told of the wood so far. */
    own: OwnPressure | undefined;
    onfill: (change: Partial<RunForm>) => void;
    onmotor: (motor: Motor) => void;
  }
  const { form, motor, own, onfill, onmotor }: Props = $props();
  let by = $state<"watts" | "amps">("watts");
  $effect(() => {
    if (form.amps !== null) by = "amps";
  });
  const shown = $derived(
    form.watts !== null ? `: ${form.watts} W` : form.amps !== null ? `: ${form.amps} A` : "",
  );
</script>

<details>
  <summary>The motor’s watts or amps{shown}</summary>
  <Choices
    legend="Read as"
    chosen={by}
    options={choicesOf<"watts" | "amps">("power_by")}
    onchoose={(chosen) => {
      by = chosen;
      onfill({ watts: null, amps: null });
    }}
  />
  <div class="fields">
    {#if by === "watts"}
      <QuantityField
        label="Watts while cutting"
        kind="plain"
        value={form.watts}
        onvalue={(v) => onfill({ watts: v })}
      />
      <QuantityField
        label="Watts idling"
        kind="plain"
        value={motor.watts}
        onvalue={(v) => onmotor({ ...motor, watts: v })}
      />
    {:else}
      <QuantityField
        label="Amps while cutting"
        kind="plain"
        value={form.amps}
        onvalue={(v) => onfill({ amps: v })}
      />
      <QuantityField
        label="Amps idling"
        kind="plain"
        value={motor.amps}
        onvalue={(v) => onmotor({ ...motor, amps: v })}
      />
      <QuantityField
        label="Volts"
        kind="plain"
        value={motor.volts}
        onvalue={(v) => onmotor({ ...motor, volts: v })}
      />
      <Choices
        legend="Phases"
        chosen={motor.phases}
        options={[
          { key: 1, name: "one" },
          { key: 3, name: "three" },
        ]}
        onchoose={(phases) => onmotor({ ...motor, phases: phases === 3 ? 3 : 1 })}
      />
    {/if}
  </div>
  <p class="soft">
    With what it takes idling, this run tells the wood’s own cutting pressure, and Plan reckons with
    it.{#if own}
      So far {Math.round(own.K_ref_MPa)} MPa at a bite of 0.1 mm, to ±{Math.round(100 * own.sd_ln)} %,
      from {own.runs}
      {own.runs === 1 ? "run" : "runs"}.{/if}
  </p>
</details>

<style>
  .fields {
    grid-template-columns: repeat(auto-fill, minmax(min(11rem, 100%), 1fr));
  }
</style>
