<script lang="ts" generics="T extends object">
  import type { Edit } from "../lib/edit.svelte";
  import { shop } from "../lib/shop.svelte";
  import Action from "./Action.svelte";

  const { edit }: { edit: Edit<T> } = $props();

  function words(value: unknown): string {
    if (value === null || value === undefined || value === "") return "nothing";
    if (typeof value === "number") return shop.number(value, "plain");
    if (typeof value === "string") return value;
    return JSON.stringify(value);
  }
  const name = (field: string) =>
    field.replace(/_(mm|MPa|N|m_s|kW)$/, " ($1)").replaceAll("_", " ");
</script>

{#if edit.met.length > 0}
  <div class="met" role="alert">
    <p><strong>Somebody else changed this since you opened it.</strong></p>
    <table>
      <thead><tr><th>Field</th><th>It was</th><th>It is now</th><th>Yours</th></tr></thead>
      <tbody>
        {#each edit.met as line (line.field)}
          <tr>
            <th scope="row">{name(line.field)}</th>
            <td>{words(line.was)}</td>
            <td>{words(line.now)}</td>
            <td>{words(line.mine)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p>Saving puts yours on top; what you did not touch stays as it is now.</p>
    <Action onclick={() => edit.keepMine()}>Go on with mine</Action>
    <Action onclick={() => edit.discard()}>Take what is there</Action>
  </div>
{:else if edit.found && edit.changed}
  <p class="found" role="status">
    Not saved yet: what you typed before is still here.
    <Action onclick={() => edit.discard()}>Discard</Action>
  </p>
{/if}

<style>
  .met {
    padding: var(--s3) var(--s4);
    border-left: var(--s2) solid var(--vermilion);
    background: var(--paper);
  }
  table {
    margin: var(--s2) 0;
  }
  th,
  td {
    padding: var(--s1) var(--s4) var(--s1) 0;
    border-bottom: var(--rule) solid var(--hairline);
  }
  .found {
    color: var(--ink-soft);
  }
</style>
