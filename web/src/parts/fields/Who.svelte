<script lang="ts">
  import { shop } from "../../lib/shop.svelte";

  /** Who did it: picked from the shop's people; typed only where the shop has named none. */
  interface Props {
    label?: string;
    value: string;
    /** Only these may: the authorised ones of a reserved step. */
    only?: readonly string[];
    onpick: (name: string) => void;
  }
  const { label = "Who", value, only, onpick }: Props = $props();
  const people = $derived(only ?? shop.settings?.people ?? []);
  const listed = $derived(value === "" || people.includes(value) ? people : [...people, value]);
</script>

<label>
  {label}
  {#if people.length === 0}
    <input
      {value}
      maxlength="40"
      autocomplete="off"
      oninput={(e) => onpick(e.currentTarget.value)}
    />
  {:else}
    <select {value} onchange={(e) => onpick(e.currentTarget.value)}>
      <option value="">–</option>
      {#each listed as name (name)}<option value={name}>{name}</option>{/each}
    </select>
  {/if}
</label>

<style>
  label {
    gap: var(--s1);
  }
  input,
  select {
    width: 100%;
  }
</style>
