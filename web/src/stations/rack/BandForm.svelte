<script lang="ts">
  import { onDestroy, onMount } from "svelte";

  import { ask, client, Problem, wordsOf } from "../../api/client";
  import type { BandAnswer, BandEdit, NewBandInput } from "../../api/schema";
  import { choicesOf } from "../../lib/forms";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { Edit } from "../../lib/edit.svelte";
  import { toFirstFault } from "../../lib/faults";
  import EditState from "../../parts/EditState.svelte";
  import Action from "../../parts/Action.svelte";
  import Fold from "../../parts/Fold.svelte";
  import Choices from "../../parts/fields/Choices.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import TypeFields from "./TypeFields.svelte";
  import { pitchOf, type TypeDraft } from "./types";
  import type { Said } from "../../lib/figures/units";

  interface Props {
    /** The band being edited; none for a new one. */
    band?: BandAnswer | undefined;
    ondone: (band: BandAnswer | null) => void;
  }
  const { band, ondone }: Props = $props();

  type Draft = TypeDraft & {
    label: string;
    length_mm: number | null;
    price: number | null;
    place: string;
    note: string;
    kept_for: string;
    looks: string;
    since: string | null;
  };
  function initial(): Draft {
    return {
      label: band?.label ?? "",
      width_mm: band?.width_mm ?? null,
      thickness_mm: band?.thickness_mm ?? null,
      tpi_lo: band?.tpi_lo ?? null,
      tpi_hi: band?.tpi_hi ?? null,
      form: band?.form ?? "hook",
      steel: band?.steel ?? "carbon_flexback",
      length_mm: band?.length_mm ?? null,
      set_per_side_mm: band?.set_per_side_mm ?? null,
      price: band?.price ?? null,
      place: band?.place ?? "",
      note: band?.note ?? "",
      kept_for: band?.kept_for ?? "all",
      looks: "new",
      since: null,
    };
  }
  /** The edit of the band that the form was opened with. */
  function begun(): Edit<Draft> {
    if (!band)
      return new Edit({ key: "band.new", title: "A new band", href: "#/rack" }, initial(), 0);
    const place = {
      key: `band.${band.id}`,
      title: `Band ${band.label}`,
      href: `#/rack/${band.id}`,
    };
    return new Edit(place, initial(), band.version);
  }
  const edit = begun();
  onDestroy(() => edit.left());
  const draft = $derived(edit.draft);
  let faults = $state<Record<string, Said>>({});
  let general = $state<Said>("");
  function set(field: keyof Draft, value: string | number | null): void {
    edit.set({ [field]: value });
  }

  function edits(): boolean {
    return band !== undefined || edit.changed;
  }

  /** A form without teeth has no pitch, whatever was typed before. */
  function settled(): NewBandInput {
    edit.set(pitchOf(draft) as Partial<Draft>);
    return edit.draft as unknown as NewBandInput;
  }

  // A new band starts with a label and a length after those there are, unless something is typed.
  async function begin(): Promise<void> {
    const usual = await ask(client.GET("/api/bands/next"));
    edit.renew({ ...edit.base, ...usual }, edit.version);
  }
  onMount(() => {
    if (!band) begin().catch(() => undefined);
  });

  let count = $state(1);
  const FIRST = ["width_mm", "tpi_lo", "tpi_hi", "steel"];
  /** A new band is soon told; one that is edited has all its fields open. */
  let details = $state(edits());
  const gist = $derived(
    [
      draft.label,
      shop.form(String(draft.form)),
      draft.length_mm ? `${shop.say(draft.length_mm, "length")} long` : "",
      band ? "" : draft.looks === "new" ? "new" : `looks ${draft.looks}`,
    ]
      .filter(Boolean)
      .join(", "),
  );

  /** Labels of the further bands when several come at once: K-07 gives K-08, K-09. */
  function otherLabels(): string[] {
    const match = /^(.*?)(\d+)$/.exec(String(draft.label));
    return Array.from({ length: Math.max(0, Math.min(count, 20) - 1) }, (_, i) => {
      if (!match) return `${draft.label}-${i + 2}`;
      const [, stem = "", digits = "0"] = match;
      return stem + String(Number(digits) + i + 1).padStart(digits.length, "0");
    });
  }

  function save(event: SubmitEvent): void {
    event.preventDefault();
    void keep(false);
  }

  /** Keeps the band; with `another` the form stays, for one more of its make. */
  async function keep(another: boolean): Promise<void> {
    const given = settled();
    try {
      const saved = await edit.save((changes) => {
        if (!band)
          return ask(client.POST("/api/bands", { body: { ...given, also: otherLabels() } }));
        const params = { path: { band_id: band.id } };
        return ask(client.PATCH("/api/bands/{band_id}", { params, body: changes as BandEdit }));
      });
      if (saved && another) {
        notice.say(`${saved.label} is on the rack.`);
        edit.renew({ ...initial(), form: saved.form, steel: saved.steel }, 0);
        count = 1;
        faults = {};
        await begin();
      } else if (saved) ondone(saved);
    } catch (problem) {
      const known = problem instanceof Problem ? problem : null;
      details ||= (known?.errors ?? []).some((f) => !FIRST.includes(f.path));
      faults = Object.fromEntries((known?.errors ?? []).map((f) => [f.path, f.message]));
      void toFirstFault();
      general = known?.errors.some((f) => f.path in draft) ? "" : wordsOf(problem);
    }
  }
</script>

<form onsubmit={save}>
  <EditState {edit} />
  <h2>{band ? `Edit ${band.label}` : "A band for the rack"}</h2>
  <div class="fields">
    <TypeFields part="first" thicknessMayWait={!band} {draft} {faults} {set} />
  </div>
  <Fold name="Details" gist={details ? "" : gist} bind:open={details}>
    <div class="fields">
      <div class="text">
        <label for="band-label">Label</label>
        <input
          id="band-label"
          value={draft.label}
          aria-describedby="band-label-error"
          oninput={(e) => set("label", e.currentTarget.value)}
        />
        <p class="help">What is written on its tag: K-07.</p>
        <p id="band-label-error" class="fault">{shop.words(faults.label ?? "")}</p>
      </div>
      <TypeFields part="rest" thicknessMayWait={!band} {draft} {faults} {set} />
      <QuantityField
        label="Welded length"
        kind="length"
        usual="band_length_mm"
        value={draft.length_mm as number | null}
        error={faults.length_mm ?? ""}
        onvalue={(v) => set("length_mm", v)}
      />
      <QuantityField
        label="Price"
        kind="plain"
        value={draft.price as number | null}
        error={faults.price ?? ""}
        help="Leave empty to take the usual one."
        onvalue={(v) => set("price", v)}
      />
      {#if !band}
        <Choices
          legend="How its edge looks"
          chosen={draft.looks}
          options={choicesOf<Draft["looks"]>("looks")}
          onchoose={(looks) => set("looks", looks)}
        />
        <div class="text">
          <label for="band-since">In the shop since</label>
          <input
            id="band-since"
            type="date"
            value={draft.since ?? ""}
            aria-describedby="band-since-error"
            oninput={(e) => set("since", e.currentTarget.value || null)}
          />
          <p class="help">Leave empty for today.</p>
          <p id="band-since-error" class="fault">{shop.words(faults.since ?? "")}</p>
        </div>
        <QuantityField
          label="How many of these"
          kind="plain"
          value={count}
          help={count > 1
            ? `Labelled ${draft.label}, ${otherLabels().join(", ")}`
            : "Bought together, alike."}
          required
          onvalue={(v) => (count = Math.max(1, Math.round(v ?? 1)))}
        />
      {/if}
      <div class="text">
        <label for="band-place">Place</label>
        <input
          id="band-place"
          value={draft.place}
          oninput={(e) => set("place", e.currentTarget.value)}
        />
      </div>
      <div class="text">
        <label for="band-kept">Kept for</label>
        <select
          id="band-kept"
          value={draft.kept_for}
          onchange={(e) => set("kept_for", e.currentTarget.value)}
        >
          <option value="all">anything</option>
          <option value="rough">rough work only</option>
          <option value="old_timber">old timber only</option>
          <option value="firewood">firewood only</option>
          <option value="show">show faces only</option>
        </select>
      </div>
      <div class="text">
        <label for="band-note">Note</label>
        <input
          id="band-note"
          value={draft.note}
          oninput={(e) => set("note", e.currentTarget.value)}
        />
      </div>
    </div>
  </Fold>
  {#if general}<p class="fault" role="alert">{shop.words(general)}</p>{/if}
  <div class="actions">
    <Action main type="submit">Save band</Action>
    {#if !band}<Action onclick={() => void keep(true)}>Save and add another</Action>{/if}
    <Action
      onclick={() => {
        edit.leave();
        ondone(null);
      }}>Cancel</Action
    >
  </div>
</form>

<style>
  form {
    padding: var(--s4) 0;
    border-top: var(--rule) solid var(--ink);
  }
  .fields {
    padding: var(--s4) 0;
  }
  .text {
    display: grid;
    gap: var(--s1);
    align-content: start;
    font-weight: 600;
  }
  .text input,
  .text select {
    font-size: var(--text-large);
    width: 100%;
  }
  .help {
    font-weight: 400;
    color: var(--ink-soft);
  }
  .fault:empty {
    display: none;
  }
</style>
