<script lang="ts">
  import { shop } from "../../../lib/shop.svelte";
  import EdgeTip from "../../../parts/pictures/EdgeTip.svelte";

  /** One tap says how an edge looks: it wins until the next run. */
  const { onjudge }: { onjudge: (dullness: number, words: string) => void } = $props();
  const steps = $derived(shop.reference?.judgements ?? []);
</script>

<div class="tips no-print" role="group" aria-label="How it looks: one tap">
  <span class="soft">How it looks:</span>
  {#each steps as step (step.name)}
    <button type="button" onclick={() => onjudge(step.dullness, step.name)}>
      <EdgeTip edge={step.name} radius_um={step.tip_radius_um} />
    </button>
  {/each}
</div>

<style>
  .tips {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s4);
    align-items: center;
    padding-top: var(--s3);
  }
  button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    border-bottom: var(--rule) solid var(--hairline);
    font-weight: 600;
  }
  button:hover {
    border-bottom-color: var(--jade);
  }
</style>
