<script lang="ts">
  import { asBytes } from "../../../lib/bytes";
  import { ask, client } from "../../../api/client";
  import type { BandPage } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { day } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";

  interface Props {
    page: BandPage;
    onchanged: () => Promise<void>;
  }
  const { page, onchanged }: Props = $props();
  let picker = $state<HTMLInputElement>();
  let shows = $state<"teeth" | "face">("teeth");
  let busy = $state(false);

  async function keep(): Promise<void> {
    const file = picker?.files?.[0];
    if (!file) return;
    busy = true;
    const run_id = shows === "face" ? (page.runs.at(-1)?.id ?? null) : null;
    const query = { shows, ...(run_id === null ? {} : { run_id }) };
    try {
      const { change_id } = await ask(
        client.POST("/api/bands/{band_id}/photo", {
          params: { path: { band_id: page.band.id }, query },
          ...asBytes(file),
        }),
      );
      await onchanged();
      notice.canUndo("The photograph is kept, without where it was taken.", change_id, onchanged);
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
      if (picker) picker.value = "";
    }
  }

  async function remove(photo_id: number): Promise<void> {
    const params = { path: { photo_id } };
    const { change_id } = await ask(client.DELETE("/api/photos/{photo_id}", { params }));
    await onchanged();
    notice.canUndo("The photograph is taken back.", change_id, onchanged);
  }

  function choose(what: "teeth" | "face"): void {
    shows = what;
    picker?.click();
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
        <Action onclick={() => void remove(photo.id)}>Take back</Action>
      </li>
    {/each}
  </ul>
  <input
    bind:this={picker}
    class="unseen"
    type="file"
    tabindex="-1"
    accept="image/jpeg,image/png,image/webp"
    capture="environment"
    aria-label="A photograph of {page.band.label}"
    onchange={() => void keep()}
  />
  <div class="add">
    <Action disabled={busy} onclick={() => choose("teeth")}>Photograph its teeth</Action>
    <Action disabled={busy || page.runs.length === 0} onclick={() => choose("face")}
      >A face of its last run</Action
    >
  </div>
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
