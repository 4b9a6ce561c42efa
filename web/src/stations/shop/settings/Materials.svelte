<script lang="ts">
  import { onDestroy } from "svelte";
  import { push } from "svelte-spa-router";

  import { ask, askPatiently, client, Problem } from "../../../api/client";
  import type { MaterialChanges, MaterialPage } from "../../../api/schema";
  import { fieldsOf } from "../../../lib/forms";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { significant, type Said } from "../../../lib/figures/units";
  import { Edit } from "../../../lib/edit.svelte";
  import EditState from "../../../parts/EditState.svelte";
  import ShopPages from "../ShopPages.svelte";
  import Action from "../../../parts/Action.svelte";
  import MaterialFinder from "../../../parts/fields/MaterialFinder.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";

  const { params }: { params?: { key?: string } } = $props();
  const key = $derived(params?.key ?? null);
  let page = $state<MaterialPage | null>(null);
  const labels = $derived(new Map(fieldsOf("material").map((f) => [f.key, f.label])));
  type Figures = Record<string, number | null>;
  let edit = $state.raw<Edit<Figures> | null>(null);
  const figures = $derived(edit?.draft ?? {});
  onDestroy(() => edit?.left());
  let faults = $state<Record<string, Said>>({});
  let newName = $state("");

  async function load(which: string): Promise<void> {
    const query = { key: which };
    page = await askPatiently(() => client.GET("/api/material", { params: { query } }));
    const place = {
      key: `material.${which}`,
      title: page.name,
      href: `#/shop/materials/${which}`,
    };
    const own = Object.fromEntries(page.figures.map((f) => [f.field, f.own]));
    edit = new Edit<Figures>(place, own, page.version);
    faults = {};
  }
  // The address names the material; reading it asks the server.
  $effect(() => {
    if (key) load(key).catch((p: unknown) => notice.fail(p));
    else page = null;
  });

  async function after(saved: MaterialPage, words: string): Promise<void> {
    await shop.load();
    await load(saved.key);
    if (saved.change_id !== null) notice.canUndo(words, saved.change_id, () => refresh(saved.key));
  }

  async function refresh(which: string): Promise<void> {
    await shop.load();
    await load(which).catch(() => push("/shop/materials"));
  }

  async function save(): Promise<void> {
    if (!page || !edit) return;
    const query = { key: page.key };
    try {
      // All figures of a material are one field of its record: they must fit together.
      const saved = await edit.save(({ version }) => {
        const body = { version, changes: figures as MaterialChanges };
        return ask(client.PATCH("/api/material", { params: { query }, body }));
      });
      if (saved) await after(saved, `${saved.name}: the shop’s figures are saved.`);
    } catch (problem) {
      const known = problem instanceof Problem ? problem.errors : [];
      faults = Object.fromEntries(known.map((f) => [f.path.split(".").at(-1) ?? "", f.message]));
      notice.fail(problem);
    }
  }

  async function reset(): Promise<void> {
    if (!page) return;
    const { key: which, name } = page;
    try {
      const query = { key: which };
      const { change_id } = await ask(client.DELETE("/api/material", { params: { query } }));
      await refresh(which);
      notice.canUndo(`${name}: back to the table.`, change_id, () => refresh(which));
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function add(): Promise<void> {
    if (!page) return;
    const body = {
      name: newName,
      nearest: page.base_key,
      changes: figures as MaterialChanges,
      note: `From ${page.base_name}`,
    };
    try {
      const saved = await ask(client.POST("/api/materials", { body }));
      newName = "";
      edit?.discard();
      await shop.load();
      await push(`/shop/materials/${saved.key}`);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<ShopPages title={page ? page.name : "Materials"} />
{#if page}
  <p class="soft">
    {page.is_new ? `From ${page.base_name}.` : ""} The table’s figure stands beside yours; leave yours
    empty to keep it.
    {shop.material(page.key)?.note ?? ""}
  </p>
  {#if edit}<EditState {edit} />{/if}
  <div class="fields">
    {#each page.figures as figure (figure.field)}
      <QuantityField
        label={labels.get(figure.field) ?? figure.field}
        kind="plain"
        value={figures[figure.field] ?? null}
        help="table: {significant(figure.original, 3)}"
        error={faults[figure.field] ?? ""}
        onvalue={(v) => edit?.set({ [figure.field]: v })}
      />
    {/each}
  </div>
  <div class="actions">
    <Action main onclick={() => void save()}>Save the shop’s figures</Action>
    {#if page.is_new || page.figures.some((f) => f.own !== null)}
      <Action onclick={() => void reset()}>{page.is_new ? "Delete it" : "Back to the table"}</Action
      >
    {/if}
    <Action href="#/shop/materials">All materials</Action>
  </div>
  <div class="new">
    <label>A new material from this one<input bind:value={newName} placeholder="its name" /></label>
    <Action disabled={!newName.trim()} onclick={() => void add()}>Add it</Action>
  </div>
{:else}
  <MaterialFinder whole chosen="" onchoose={(k) => void push(`/shop/materials/${k}`)} />
  <p class="soft">
    {shop.reference?.materials.filter((m) => m.own).length ?? 0} with figures of this shop’s own.
  </p>
{/if}

<style>
  .fields {
    grid-template-columns: repeat(auto-fill, minmax(min(17rem, 100%), 1fr));
    padding: var(--s4) 0;
  }
  .actions,
  .new {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    padding-top: var(--s3);
  }
  input {
    width: 16rem;
  }
</style>
