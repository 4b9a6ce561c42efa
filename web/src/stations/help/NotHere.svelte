<script lang="ts">
  import { router } from "svelte-spa-router";

  import Action from "../../parts/Action.svelte";
</script>

<h1>There is no page at this address</h1>
<p class="soft mono">{router.location}</p>
<p>It may have been typed wrongly, or be from another version.</p>
<div class="actions">
  <Action main href="#/plan">Plan</Action>
  <Action href="#/help">All pages</Action>
</div>

<style>
  .mono {
    overflow-wrap: anywhere;
  }
  .actions {
    padding-top: var(--s4);
  }
</style>
