<script lang="ts">
  import { onDestroy, untrack } from "svelte";

  import { ask, client, Problem } from "../../../api/client";
  import type { FittingsEdit, FittingsInput } from "../../../api/schema";
  import { fieldsOf } from "../../../lib/forms";
  import { notice } from "../../../lib/notice.svelte";
  import { Edit } from "../../../lib/edit.svelte";
  import EditState from "../../../parts/EditState.svelte";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import type { Said } from "../../../lib/figures/units";

  interface Props {
    saw_id: number;
    version: number;
    fittings: FittingsInput;
    onsaved: () => void;
  }
  const { saw_id, version, fittings, onsaved }: Props = $props();

  type Field = {
    [K in keyof FittingsInput]-?: FittingsInput[K] extends number | null | undefined ? K : never;
  }[keyof FittingsInput];

  /** The record as the form has it: lists as lines of text. */
  function start() {
    const { printed_marks, good_for_h, ...plain } = fittings;
    return {
      ...plain,
      marks: (printed_marks ?? []).map((m) => `${m.width_mm}: ${m.reading}`).join("\n"),
      hours: Object.entries(good_for_h ?? {})
        .map(([step, h]) => `${step}: ${h}`)
        .join("\n"),
    };
  }
  const place = untrack(() => ({
    key: `fittings.${saw_id}`,
    title: "What is known of a saw",
    href: `#/shop/saws/${saw_id}/stand`,
  }));
  const edit = untrack(() => new Edit(place, start(), version));
  onDestroy(() => edit.left());
  const draft = $derived(edit.draft);
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
    try {
      const saved = await edit.save(({ marks, hours, ...changes }) => {
        const body: FittingsEdit = { ...changes };
        if (marks !== undefined) {
          const lines = pairs(marks);
          body.printed_marks = lines.map(([width, reading]) => ({
            width_mm: Number(width),
            reading,
          }));
        }
        if (hours !== undefined) body.good_for_h = Object.fromEntries(pairs(hours));
        const params = { path: { saw_id } };
        return ask(client.PATCH("/api/saws/{saw_id}/fittings", { params, body }));
      });
      if (!saved) return;
      faults = {};
      onsaved();
      notice.canUndo("Saved.", saved.change_id, onsaved);
    } catch (problem) {
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path, f.message]));
      notice.fail(problem);
    }
  }
</script>

<EditState {edit} />
<div class="fields">
  <label
    >Fence<select
      value={draft.fence}
      onchange={(e) =>
        edit.set({ fence: e.currentTarget.value as "fence" | "single_point" | "none" })}
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
        edit.set({
          knob: e.currentTarget.value as "unknown" | "clockwise_back" | "clockwise_forward",
        })}
    >
      <option value="unknown">not noted</option>
      <option value="clockwise_back">clockwise moves it back</option>
      <option value="clockwise_forward">clockwise moves it forward</option>
    </select></label
  >
  {#each fieldsOf<Exclude<Field, "good_for_h">>("fittings") as field (field.key)}
    <QuantityField
      label={field.label}
      kind={field.kind}
      value={draft[field.key] ?? null}
      help={field.help}
      error={faults[field.key] ?? ""}
      onvalue={(v) => edit.set({ [field.key]: v })}
    />
  {/each}
  <label
    >Marks printed on its scale, width in mm: reading<textarea
      rows="4"
      value={draft.marks}
      oninput={(e) => edit.set({ marks: e.currentTarget.value })}></textarea></label
  >
  <label
    >A step stays good for so many hours here, step: hours<textarea
      rows="4"
      value={draft.hours}
      oninput={(e) => edit.set({ hours: e.currentTarget.value })}
      placeholder="tension: 12"></textarea></label
  >
</div>
<Action main onclick={() => void save()}>Save</Action>

<style>
  .fields {
    padding: var(--s3) 0;
  }
  label {
    gap: var(--s1);
    align-content: start;
  }
  select,
  textarea {
    font-size: var(--text-large);
  }
</style>
