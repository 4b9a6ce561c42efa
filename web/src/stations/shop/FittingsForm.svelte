<script lang="ts">
  import { ask, client, Problem } from "../../api/client";
  import type { FittingsInputInput, FittingsInputOutput } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import type { Kind } from "../../lib/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/QuantityField.svelte";
  import type { Said } from "../../lib/units";

  interface Props {
    saw_id: number;
    fittings: FittingsInputOutput;
    onsaved: () => void;
  }
  const { saw_id, fittings, onsaved }: Props = $props();

  type Field =
    | "fence_bolt_spacing_mm"
    | "tyre_width_mm"
    | "tilt_bolt_oclock"
    | "toe_bolt_oclock"
    | "manual_side_gap_mm"
    | "manual_thrust_gap_mm"
    | "motor_pulley_mm"
    | "wheel_pulley_mm"
    | "belt_length_mm";
  const FIELDS: readonly { key: Field; label: string; kind: Kind; help: string }[] = [
    {
      key: "fence_bolt_spacing_mm",
      label: "Fence, bolt to bolt",
      kind: "length",
      help: "Where drift is set.",
    },
    { key: "tyre_width_mm", label: "Tyre width", kind: "length", help: "" },
    {
      key: "tilt_bolt_oclock",
      label: "Bolt that leans a wheel, o’clock",
      kind: "plain",
      help: "Seen from the doors, 1 to 12. Usually 6.",
    },
    {
      key: "toe_bolt_oclock",
      label: "Bolt that toes a wheel, o’clock",
      kind: "plain",
      help: "Usually 9.",
    },
    {
      key: "manual_side_gap_mm",
      label: "Side gap by the saw’s manual",
      kind: "thin",
      help: "It wins over the house rule.",
    },
    { key: "manual_thrust_gap_mm", label: "Thrust gap by the manual", kind: "thin", help: "" },
    { key: "motor_pulley_mm", label: "Motor pulley", kind: "length", help: "Diameter in use." },
    { key: "wheel_pulley_mm", label: "Wheel pulley", kind: "length", help: "" },
    { key: "belt_length_mm", label: "Belt length", kind: "length", help: "To name its tick." },
  ];

  // The form is a copy of the record until it is saved.
  let draft = $derived({ ...fittings });
  let marks = $derived(
    (fittings.printed_marks ?? []).map((m) => `${m.width_mm}: ${m.reading}`).join("\n"),
  );
  let hours = $derived(
    Object.entries(fittings.good_for_h ?? {})
      .map(([step, h]) => `${step}: ${h}`)
      .join("\n"),
  );
  let faults = $state<Record<string, Said>>({});

  /** Lines of "this: that" as pairs; an unreadable line is left for the server to name. */
  function pairs(text: string): [string, number][] {
    return text
      .split("\n")
      .filter((line) => line.trim() !== "")
      .map((line) => {
        const [name = "", value = ""] = line.split(":");
        return [name.trim(), Number(value.trim().replace(",", "."))];
      });
  }

  async function save(): Promise<void> {
    const body: FittingsInputInput = {
      ...draft,
      printed_marks: pairs(marks).map(([width, reading]) => ({ width_mm: Number(width), reading })),
      good_for_h: Object.fromEntries(pairs(hours)),
    };
    try {
      const params = { path: { saw_id } };
      const { change_id } = await ask(client.PUT("/api/saws/{saw_id}/fittings", { params, body }));
      faults = {};
      onsaved();
      notice.canUndo("Saved.", change_id, onsaved);
    } catch (problem) {
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path, f.message]));
      notice.fail(problem);
    }
  }
</script>

<div class="fields">
  <label
    >Fence<select
      value={draft.fence}
      onchange={(e) =>
        (draft = { ...draft, fence: e.currentTarget.value as "fence" | "single_point" | "none" })}
    >
      <option value="fence">a fence</option>
      <option value="single_point">a single point</option>
      <option value="none">none</option>
    </select></label
  >
  <label
    >Tracking knob<select
      value={draft.knob}
      onchange={(e) =>
        (draft = {
          ...draft,
          knob: e.currentTarget.value as "unknown" | "clockwise_back" | "clockwise_forward",
        })}
    >
      <option value="unknown">not noted</option>
      <option value="clockwise_back">clockwise moves it back</option>
      <option value="clockwise_forward">clockwise moves it forward</option>
    </select></label
  >
  {#each FIELDS as field (field.key)}
    <QuantityField
      label={field.label}
      kind={field.kind}
      value={draft[field.key] ?? null}
      help={field.help}
      error={faults[field.key] ?? ""}
      onvalue={(v) => (draft = { ...draft, [field.key]: v })}
    />
  {/each}
  <label
    >Marks printed on its scale, width in mm: reading<textarea rows="4" bind:value={marks}
    ></textarea></label
  >
  <label
    >A step stays good for so many hours here, step: hours<textarea
      rows="4"
      bind:value={hours}
      placeholder="tension: 12"></textarea></label
  >
</div>
<Action main onclick={() => void save()}>Save</Action>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(16rem, 1fr));
    gap: var(--s4);
    padding: var(--s3) 0;
  }
  label {
    display: grid;
    gap: var(--s1);
    align-content: start;
    font-weight: 600;
  }
  select,
  textarea {
    min-height: var(--touch);
    font-size: var(--text-large);
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
    font-weight: 400;
  }
</style>
