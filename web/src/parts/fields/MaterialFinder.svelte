<script lang="ts">
  import Fuse from "fuse.js";

  import type { MaterialLine } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";

  interface Props {
    chosen: string;
    onchoose: (key: string) => void;
    /** The whole table on a page of its own, and not a list to look through in place. */
    whole?: boolean;
  }
  const { chosen, onchoose, whole = false }: Props = $props();

  let typed = $state("");
  const all = $derived(shop.reference?.materials ?? []);
  const fuse = $derived(
    new Fuse(all, { keys: ["name", "also", "group"], threshold: 0.4, ignoreLocation: true }),
  );
  const found = $derived(typed.trim() ? fuse.search(typed, { limit: 12 }).map((f) => f.item) : all);
  const groups = $derived(byGroup(found));
  const id = $props.id();

  /** Groups in the order their first material comes. */
  function byGroup(materials: readonly MaterialLine[]): [string, MaterialLine[]][] {
    const names = [...new Set(materials.map((m) => m.group))];
    return names.map((name) => [name, materials.filter((m) => m.group === name)]);
  }
</script>

<div class="finder">
  <label for={id}>Material</label>
  <input
    {id}
    autocomplete="off"
    placeholder="larch, oak, plywood …"
    bind:value={typed}
    onkeydown={(e) => {
      if (e.key === "Enter" && found[0]) onchoose(found[0].key);
    }}
  />
  <div class="list" data-whole={whole}>
    {#each groups as [group, materials] (group)}
      <h3>{group.replaceAll("_", " ")}</h3>
      <ul>
        {#each materials as material (material.key)}
          <li>
            <button
              type="button"
              aria-pressed={material.key === chosen}
              onclick={() => onchoose(material.key)}>{material.name}</button
            >
          </li>
        {/each}
      </ul>
    {/each}
    {#if found.length === 0}<p class="soft">Nothing like “{typed}” in the table.</p>{/if}
  </div>
</div>

<style>
  label {
    display: block;
  }
  input {
    width: min(24rem, 100%);
    min-height: 3.25rem;
    font-size: var(--text-large);
    background: none;
  }
  .list {
    max-height: 20rem;
    overflow-y: auto;
    padding-top: var(--s2);
  }
  .list[data-whole="true"] {
    max-height: none;
  }
  h3 {
    color: var(--ink-soft);
    font-weight: 400;
    padding: var(--s2) 0 0;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    column-gap: var(--s4);
  }
  button {
    min-height: var(--touch);
    padding: 0 var(--s1);
    text-decoration: underline dotted var(--hairline);
    text-underline-offset: 0.3em;
  }
  button[aria-pressed="true"] {
    background: var(--jade-pale);
    font-weight: 650;
  }
</style>
