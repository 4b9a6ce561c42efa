<script lang="ts">
  import { asBytes } from "../../lib/bytes";
  import { ask, client } from "../../api/client";
  import type { StockAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import Action from "../../parts/Action.svelte";

  const { stock, onchanged }: { stock: StockAnswer; onchanged: () => void } = $props();
  let picker = $state<HTMLInputElement>();
  let busy = $state(false);

  async function keep(): Promise<void> {
    const file = picker?.files?.[0];
    if (!file) return;
    busy = true;
    try {
      const params = { path: { stock_id: stock.id } };
      const { change_id } = await ask(
        client.POST("/api/stock/{stock_id}/photo", {
          params,
          ...asBytes(file),
        }),
      );
      onchanged();
      notice.canUndo("The photograph is kept, without where it was taken.", change_id, () =>
        Promise.resolve(onchanged()),
      );
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
      if (picker) picker.value = "";
    }
  }

  async function remove(): Promise<void> {
    if (stock.photo_id === null) return;
    const params = { path: { photo_id: stock.photo_id } };
    const { change_id } = await ask(client.DELETE("/api/photos/{photo_id}", { params }));
    onchanged();
    notice.canUndo("The photograph is taken back.", change_id, () => Promise.resolve(onchanged()));
  }
</script>

<div class="photo no-print">
  {#if stock.photo_id !== null}
    <img src="/api/photos/{stock.photo_id}.jpg" alt="{stock.label}, as it lies" />
    <Action onclick={() => void remove()}>Take it back</Action>
  {/if}
  <input
    bind:this={picker}
    class="unseen"
    type="file"
    tabindex="-1"
    accept="image/jpeg,image/png,image/webp"
    capture="environment"
    aria-label="A photograph of {stock.label}"
    onchange={() => void keep()}
  />
  <Action disabled={busy} onclick={() => picker?.click()}
    >{stock.photo_id === null ? "Photograph it" : "Another photograph"}</Action
  >
</div>

<style>
  .photo {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: stretch;
  }
  img {
    max-width: min(100%, 24rem);
    max-height: 14rem;
    border: var(--hair) solid var(--hairline);
  }
</style>
