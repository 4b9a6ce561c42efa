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
    display: grid;
    gap: var(--s1);
    font-weight: 600;
  }
  input,
  select {
    min-height: var(--touch);
    width: 100%;
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
    font-weight: 400;
  }
</style>
