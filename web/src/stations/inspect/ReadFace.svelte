<script lang="ts">
  import { onDestroy } from "svelte";

  import { ask, client } from "../../api/client";
  import type { FaceInput, FacePage } from "../../api/schema";
  import { FOUR, NINE, type PlaceToRead } from "../../drawings/relief";
  import { choicesOf } from "../../lib/forms";
  import { Edit } from "../../lib/edit.svelte";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall } from "../../lib/storage";
  import { readings, unitSize } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import ActionBar from "../../parts/ActionBar.svelte";
  import Choices from "../../parts/fields/Choices.svelte";
  import Keypad from "../../parts/fields/Keypad.svelte";
  import { BLANK_FACE, type FaceDraft, LED } from "./face";
  import Look from "./Look.svelte";
  import Places from "./Places.svelte";
  import Trial from "./Trial.svelte";

  interface Props {
    /** The job's page; its number names what is being read. */
    page: FacePage;
    /** A face was kept; the change that undoes it. */
    onkept: (change_id: number | null) => Promise<void>;
  }
  const { page, onkept }: Props = $props();
  const CALIPER_TRIES = 8;

  function begun(): Edit<FaceDraft> {
    const job = page.job_id;
    return new Edit(
      { key: `face.${job}`, title: "A face", href: `#/inspect/${job}` },
      BLANK_FACE,
      0,
    );
  }
  let edit = $state.raw(begun());
  let current = $state(0);
  let busy = $state(false);
  let field = $state<HTMLInputElement>();
  onDestroy(() => edit.left());

  const draft = $derived(edit.draft);
  const places = $derived<PlaceToRead[]>(
    draft.points === "four" ? FOUR : draft.points === "nine" ? NINE : draft.own,
  );
  /** What was typed at a place may be, mm: one value, two where a comma is either, or none. */
  const may = (text: string | undefined) => readings(text ?? "", "thin", shop.units);
  const complete = $derived(
    places.length > 2 && places.every((_, i) => may(draft.typed[i]).length === 1),
  );
  const perUnit = $derived(unitSize("length", shop.units));
  /** As it would be typed without doubt. */
  const either = $derived(may(draft.typed[current]).map((mm) => Number((mm / perUnit).toFixed(4))));

  function type(place: number, text: string): void {
    const typed = places.map((_, i) => (i === place ? text : (draft.typed[i] ?? "")));
    edit.set({ typed });
  }

  /** Where fingers type, the large keys serve: the device's own would cover the board. */
  function focusField(): void {
    if (globalThis.matchMedia?.("(pointer: fine)").matches) field?.focus();
  }

  /** The next point by itself, once one is read. */
  function next(): void {
    current = Math.min(current + 1, places.length - 1);
    if (document.activeElement === field) field?.select();
  }

  async function readOnce(place: PlaceToRead): Promise<void> {
    const body = { along: place.along, up: place.up, board: page.faces.length };
    const path = { job_id: page.job_id };
    const got = await ask(client.POST("/api/jobs/{job_id}/probe", { params: { path }, body }));
    type(current, String(Number((got.value_mm / perUnit).toFixed(3))));
    if (got.simulated) edit.set({ simulated: true });
    next();
  }

  async function probe(): Promise<void> {
    const place = places[current];
    if (!place || busy) return;
    busy = true;
    try {
      for (let tries = CALIPER_TRIES; tries > 0; tries -= 1) {
        try {
          await readOnce(place);
          return;
        } catch (problem) {
          if (tries === 1) throw problem;
        }
      }
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
    }
  }

  async function save(): Promise<void> {
    if (busy) return;
    busy = true;
    try {
      const read = places.map(
        (p, i) => [p.along, p.up, may(draft.typed[i])[0] ?? 0] as [number, number, number],
      );
      const body: FaceInput = {
        job_id: page.job_id,
        readings: read,
        piece: draft.piece,
        simulated: draft.simulated,
        roughness: draft.roughness as FaceInput["roughness"],
        ridge_mm: draft.ridge_mm,
        trial: draft.trial,
        guided: draft.guided,
        who: recall("who", ""),
      };
      const kept = await ask(client.POST("/api/faces", { body }));
      edit.discard();
      edit = begun();
      current = 0;
      await onkept(kept.change_id ?? null);
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
    }
  }
</script>

<Trial
  proposal={page.proposal ?? null}
  trial={draft.trial}
  judged={page.faces.find((f) => f.trial !== "")?.judgement ?? null}
  ontrial={(trial) => edit.set({ trial })}
/>
<Choices
  legend="Read it at"
  chosen={draft.points}
  options={choicesOf<FaceDraft["points"]>("points")}
  onchoose={(points) => {
    edit.set({ points, typed: [], own: [] });
    current = 0;
  }}
/>
<Places
  points={draft.points}
  {places}
  typed={draft.typed}
  {current}
  onpick={(i) => {
    current = i;
    focusField();
  }}
  onadd={(place) => {
    edit.set({ own: [...draft.own, place] });
    current = draft.own.length - 1;
    focusField();
  }}
/>
{#if places[current]}
  <Keypad
    text={draft.typed[current] ?? ""}
    places={shop.units === "inch" ? 3 : 2}
    ontext={(text) => type(current, text)}
    onwhole={next}
  />
{/if}
<form
  onsubmit={(e) => {
    e.preventDefault();
    next();
  }}
>
  <label for="face-reading"
    >{places[current]
      ? `Thickness at ${places[current]?.name}, ${shop.unit("length")}`
      : "Tap the board where you read it"}</label
  >
  <div class="row">
    <input
      id="face-reading"
      bind:this={field}
      inputmode="decimal"
      autocomplete="off"
      class="mono"
      disabled={!places[current]}
      value={draft.typed[current] ?? ""}
      oninput={(e) => type(current, e.currentTarget.value)}
    />
    <Action type="submit">Next point</Action>
    {#if page.caliper}<Action onclick={() => void probe()}>Read with the caliper</Action>{/if}
  </div>
  {#if either.length > 1}
    <p class="either" role="alert">
      “{draft.typed[current]}” may be either:
      {#each either as value (value)}
        <Action onclick={() => type(current, String(value))}>{value}</Action>
      {/each}
    </p>
  {/if}
  <label for="face-piece">Which piece</label>
  <input
    id="face-piece"
    value={draft.piece}
    oninput={(e) => edit.set({ piece: e.currentTarget.value })}
  />
  <label for="face-guided">Led by</label>
  <select
    id="face-guided"
    value={draft.guided}
    onchange={(e) => edit.set({ guided: e.currentTarget.value as FaceDraft["guided"] })}
  >
    {#each Object.entries(LED) as [key, name] (key)}<option value={key}>{name}</option>{/each}
  </select>
</form>
<Look
  roughness={draft.roughness}
  ridge_mm={draft.ridge_mm}
  onroughness={(roughness) => edit.set({ roughness })}
  onridge={(ridge_mm) => edit.set({ ridge_mm })}
/>
{#if draft.simulated}<p class="soft">
    Read from a stand-in: it is kept marked so, and teaches nothing.
  </p>{/if}
<ActionBar>
  <Action main disabled={!complete || busy} onclick={() => void save()}
    >{draft.trial ? "Keep the trial" : "Keep the face"}</Action
  >
</ActionBar>

<style>
  form {
    display: grid;
    gap: var(--s1);
    padding-bottom: var(--s4);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: end;
  }
  input {
    font-size: var(--text-large);
    width: 9rem;
  }
  #face-piece {
    width: 100%;
  }
  .either {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
    align-items: center;
    color: var(--vermilion);
  }
  select {
    font-size: var(--text-large);
  }
</style>
