<script lang="ts">
  import { asBytes } from "../../../lib/bytes";
  import { ask, client } from "../../../api/client";
  import type { BandPage } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { day } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import PhotoPicker from "../../../parts/PhotoPicker.svelte";

  interface Props {
    page: BandPage;
    onchanged: () => Promise<void>;
  }
  const { page, onchanged }: Props = $props();
  let shows = $state<"teeth" | "face">("teeth");

  function send(file: File): Promise<{ change_id: number }> {
    const run_id = shows === "face" ? (page.runs.at(-1)?.id ?? null) : null;
    const query = { shows, ...(run_id === null ? {} : { run_id }) };
    const params = { path: { band_id: page.band.id }, query };
    return ask(client.POST("/api/bands/{band_id}/photo", { params, ...asBytes(file) }));
  }

  async function remove(photo_id: number): Promise<void> {
    const params = { path: { photo_id } };
    const { change_id } = await ask(client.DELETE("/api/photos/{photo_id}", { params }));
    await onchanged();
    notice.canUndo("The photograph is taken back.", change_id, onchanged);
  }
</script>

<section class="no-print" aria-label="Photographs">
  <h2>Photographs</h2>
  <ul>
    {#each page.photos as photo (photo.id)}
      <li>
        <a href="/api/photos/{photo.id}.jpg" target="_blank" rel="noopener"
          ><img
            src="/api/photos/{photo.id}.jpg"
            alt="{photo.shows === 'face' ? 'A face it left' : 'Its teeth'}, {day(photo.at)}"
            loading="lazy"
          /></a
        >
        <span class="soft">{photo.shows === "face" ? "face" : "teeth"}, {day(photo.at)}</span>
        <Action onclick={() => void remove(photo.id)}>Undo</Action>
      </li>
    {/each}
  </ul>
  <PhotoPicker of={page.band.label} onsend={send} {onchanged}>
    {#snippet children({ open, busy })}
      <div class="add">
        <Action
          disabled={busy}
          onclick={() => {
            shows = "teeth";
            open();
          }}>Photograph its teeth</Action
        >
        <Action
          disabled={busy || page.runs.length === 0}
          onclick={() => {
            shows = "face";
            open();
          }}>A face of its last run</Action
        >
      </div>
    {/snippet}
  </PhotoPicker>
</section>

<style>
  section {
    padding-top: var(--s5);
  }
  ul,
  .add {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
  }
  li {
    display: grid;
  }
  img {
    display: block;
    max-width: 12rem;
    max-height: 9rem;
  }
</style>
