<script lang="ts">
  import { askPatiently, client } from "../../api/client";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";
  import SampleDoor from "./SampleDoor.svelte";

  let bands = $state<number | null>(null);
  askPatiently(() => client.GET("/api/bands"))
    .then((list) => (bands = list.length))
    .catch((p: unknown) => notice.fail(p));
  const saws = $derived(shop.saws.length);
</script>

<h1>{saws === 0 ? "First, the saw and a band." : bands ? "Ready for a job." : "Now a band."}</h1>
<p class="lead">
  One saw and one band are enough to be answered. What you do not know is worked out, or taken as
  usual and marked so.
</p>
<div class="doors">
  <section data-next={saws === 0}>
    <h2>My saw</h2>
    {#if saws > 0}
      <p>
        {shop.saws.map((s) => s.saw.name).join(", ")}
        {saws === 1 ? "is" : "are"} here.
      </p>
    {:else}
      <p>Its kind is enough to begin with; its plate tells the rest.</p>
    {/if}
    <Action main={saws === 0} href="#/shop/saws/new"
      >{saws > 0 ? "Add another" : "Add my saw"}</Action
    >
  </section>
  <section data-next={saws > 0 && bands === 0}>
    <h2>My bands</h2>
    {#if bands}
      <p>{bands} {bands === 1 ? "band is" : "bands are"} on the rack.</p>
    {:else}
      <p>Width and teeth are enough, and how worn it looks. Many at once from a list.</p>
    {/if}
    <Action main={saws > 0 && bands === 0} href="#/rack/new"
      >{bands ? "Add another" : "Add a band"}</Action
    >
    <Action href="#/rack/list">From a list</Action>
  </section>
  <section>
    <h2>Look round a sample yard</h2>
    <SampleDoor />
  </section>
</div>
{#if saws > 0 && bands}
  <p class="go"><Action main href="#/plan">Plan a job</Action></p>
{/if}

<style>
  .lead {
    font-size: var(--text-large);
    max-width: 46rem;
    padding-bottom: var(--s4);
  }
  .doors {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(16rem, 100%), 1fr));
    gap: var(--s5);
  }
  section {
    display: grid;
    gap: var(--s3);
    align-content: start;
    justify-items: start;
    padding: var(--s4) 0;
    border-top: var(--rule) solid var(--ink);
  }
  section[data-next="true"] {
    border-top-color: var(--jade);
  }
  .go {
    padding-top: var(--s5);
  }
</style>
