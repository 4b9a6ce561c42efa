<script lang="ts">
  import { asBytes } from "../../lib/bytes";
  import { ask, client } from "../../api/client";
  import type { StockAnswer } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import Action from "../../parts/Action.svelte";
  import PhotoPicker from "../../parts/PhotoPicker.svelte";

  const { stock, onchanged }: { stock: StockAnswer; onchanged: () => void } = $props();

  function send(file: File): Promise<{ change_id: number }> {
    const params = { path: { stock_id: stock.id } };
    return ask(client.POST("/api/stock/{stock_id}/photo", { params, ...asBytes(file) }));
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
    <Action onclick={() => void remove()}>Undo</Action>
  {/if}
  <PhotoPicker of={stock.label} onsend={send} {onchanged}>
    {#snippet children({ open, busy })}
      <Action disabled={busy} onclick={open}
        >{stock.photo_id === null ? "Photograph it" : "Another photograph"}</Action
      >
    {/snippet}
  </PhotoPicker>
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
