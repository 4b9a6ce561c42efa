<script lang="ts">
  import RackPages from "./RackPages.svelte";
  import { onDestroy } from "svelte";

  import { ask, askPatiently, client, Problem } from "../../api/client";
  import type { OwnType, OwnTypeEdit, OwnTypeInput } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { Edit } from "../../lib/edit.svelte";
  import EditState from "../../parts/EditState.svelte";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import TypeTable from "./TypeTable.svelte";
  import TypeFields from "./TypeFields.svelte";
  import { pitchOf, type TypeDraft } from "./types";
  import type { Said } from "../../lib/figures/units";

  type Draft = TypeDraft & { price_per_m: number | null; told_life: number | null };
  const BLANK: Draft = {
    width_mm: null,
    thickness_mm: null,
    tpi_lo: null,
    tpi_hi: null,
    form: "hook",
    steel: "carbon_flexback",
    set_per_side_mm: null,
    price_per_m: null,
    told_life: null,
  };

  let types = $state<OwnType[] | null>(null);
  let editing = $state<number | null>(null);
  let edit = $state.raw(begun(null));
  const draft = $derived(edit.draft);
  onDestroy(() => edit.left());
  let faults = $state<Record<string, Said>>({});

  async function load(): Promise<void> {
    types = await askPatiently(() => client.GET("/api/band-types"));
  }
  void load().catch((p: unknown) => notice.fail(p));

  function begun(type: OwnType | null): Edit<Draft> {
    const title = type ? shop.typeName(type) : "A band type";
    const place = { key: `type.${type?.id ?? "new"}`, title, href: "#/rack/types" };
    const keys = Object.keys(BLANK) as (keyof Draft)[];
    const record = type ? Object.fromEntries(keys.map((k) => [k, type[k]])) : {};
    return new Edit<Draft>(place, { ...BLANK, ...record }, type?.version ?? 0);
  }

  function open(type: OwnType | null): void {
    edit.left();
    editing = type?.id ?? null;
    edit = begun(type);
    faults = {};
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    edit.set(pitchOf(draft));
    const body = draft as unknown as OwnTypeInput;
    const type_id = editing;
    try {
      const saved = await edit.save((changes) => {
        if (type_id === null) return ask(client.POST("/api/band-types", { body }));
        const params = { path: { type_id } };
        return ask(
          client.PATCH("/api/band-types/{type_id}", { params, body: changes as OwnTypeEdit }),
        );
      });
      if (!saved) return;
      open(null);
      await load();
      if (saved.change_id !== null) {
        notice.canUndo(`${shop.typeName(saved)}: searched from now on.`, saved.change_id, load);
      }
    } catch (problem) {
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path.split(".").at(-1) ?? "", f.message]));
      if (!known.some((f) => f.path in draft)) notice.fail(problem);
    }
  }

  async function remove(type: OwnType): Promise<void> {
    try {
      const params = { path: { type_id: type.id } };
      const { change_id } = await ask(client.DELETE("/api/band-types/{type_id}", { params }));
      await load();
      notice.canUndo(`${shop.typeName(type)}: no longer searched.`, change_id, load);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<RackPages title="Band types you can buy" />
<p class="soft">
  Plan searches the built-in types and these. Gullet, set and kerf follow from the tables unless
  measured.
</p>
<TypeTable />
<h2>Your own</h2>
<ul>
  {#each types ?? [] as type (type.id)}
    <li>
      <strong class="mono"
        >{shop.number(type.width_mm, "length")} × {shop.number(type.thickness_mm, "thin")}</strong
      >
      <span>{shop.typeName(type)}</span>
      <span class="mono"
        >{type.price_per_m === null ? "" : `${shop.money(type.price_per_m)} / m`}</span
      >
      <Action onclick={() => open(type)}>Edit</Action>
      <Action onclick={() => void remove(type)}>Delete</Action>
    </li>
  {:else}
    <li class="soft none">{types ? "None of your own yet." : "Reading …"}</li>
  {/each}
</ul>
<form onsubmit={(e) => void save(e)}>
  <EditState {edit} />
  <h2>{editing === null ? "A type of your own" : "Change the type"}</h2>
  <div class="fields">
    <TypeFields {draft} {faults} set={(field, value) => edit.set({ [field]: value })} />
    <QuantityField
      label="Price a metre"
      kind="plain"
      value={draft.price_per_m}
      error={faults.price_per_m ?? ""}
      help="Leave empty to take the usual one."
      onvalue={(v) => edit.set({ price_per_m: v })}
    />
    <QuantityField
      label="Life you were told"
      kind="plain"
      value={draft.told_life}
      error={faults.told_life ?? ""}
      help="How many times as long as plain carbon. Leave empty to take the usual of its steel."
      onvalue={(v) => edit.set({ told_life: v })}
    />
  </div>
  <div class="actions">
    <Action main type="submit">{editing === null ? "Add the type" : "Save the type"}</Action>
    {#if editing !== null}<Action
        onclick={() => {
          edit.discard();
          open(null);
        }}>Cancel</Action
      >{/if}
    <Action href="#/rack">Rack</Action>
  </div>
</form>

<style>
  ul {
    border-top: var(--rule) solid var(--ink);
    margin: var(--s3) 0 var(--s5);
  }
  li {
    display: grid;
    grid-template-columns: 9rem 1fr auto auto auto;
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .none {
    display: flex;
  }
  .fields {
    padding: var(--s4) 0;
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 1fr auto auto;
    }
  }
</style>
