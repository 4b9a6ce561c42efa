<script lang="ts">
  import { invalidFields } from "../lib/invalidFields.svelte";
</script>

{#if invalidFields.any}
  <p role="status">
    <strong>A field cannot be read.</strong> What stands here still answers what was there before.
  </p>
{/if}

<style>
  p {
    border-left: var(--s2) solid var(--vermilion);
    background: var(--vermilion-pale);
    padding: var(--s2) var(--s4);
  }
</style>
