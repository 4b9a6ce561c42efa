<script lang="ts">
  import { ask, askPatiently, client, notThere } from "../../api/client";
  import type { FaceAnswer, FacePage } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import JobsToTake from "../../parts/JobsToTake.svelte";
  import FaceList from "./FaceList.svelte";
  import FaceShown from "./FaceShown.svelte";
  import ReadFace from "./ReadFace.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const jobId = $derived(Number(params?.id) || currentJob.id);

  let page = $state.raw<FacePage | null>(null);
  /** Said of a job that is not there. */
  let missing = $state("");
  let shown = $state<number | null>(null);
  let beside = $state<number | null>(null);
  const faces = $derived(page?.faces ?? []);
  const face = $derived(faces.find((f) => f.id === shown) ?? faces[0] ?? null);
  const before = $derived<FaceAnswer | null>(
    faces.find((f) => f.id === beside) ?? faces[faces.indexOf(face as FaceAnswer) + 1] ?? null,
  );

  async function load(id: number): Promise<void> {
    if (currentJob.id !== id) await currentJob.open(id);
    const path = { job_id: id };
    page = await askPatiently(() => client.GET("/api/jobs/{job_id}/faces", { params: { path } }));
  }
  // The job in hand names the faces; reading them asks the server.
  $effect(() => {
    missing = "";
    if (jobId)
      load(jobId).catch((problem: unknown) => {
        missing = notThere(problem);
        if (!missing) notice.fail(problem);
      });
  });

  async function kept(change_id: number | null): Promise<void> {
    if (!jobId) return;
    shown = beside = null;
    await load(jobId);
    if (change_id !== null) notice.canUndo("The face is kept.", change_id, () => load(jobId));
  }

  async function takeBack(id: number): Promise<void> {
    if (!jobId) return;
    const path = { face_id: id };
    const { change_id } = await ask(client.DELETE("/api/faces/{face_id}", { params: { path } }));
    await load(jobId);
    notice.canUndo("The face is taken back, and what it taught.", change_id, () => load(jobId));
  }
</script>

{#if !jobId || missing}
  <JobsToTake title={missing || "No job in hand."} stage="inspect" />
{:else if page?.why_not && faces.length === 0}
  <JobsToTake title="Nothing to inspect yet." why={page.why_not} stage="inspect" />
{:else if page}
  <h1>Inspect <strong>{currentJob.name}</strong></h1>
  {#if page.why_not}<p class="soft">{page.why_not}</p>{/if}
  <div class="two">
    <section aria-label="Read a face">
      {#key page.job_id}<ReadFace {page} onkept={kept} />{/key}
    </section>
    <section aria-live="polite" aria-label="The face">
      <FaceShown {page} {face} {before} />
    </section>
  </div>
  {#if faces.length > 0}
    <FaceList
      {faces}
      onshow={(id) => (shown = id)}
      onbeside={(id) => (beside = id)}
      ontakeback={(id) => void takeBack(id)}
    />
  {/if}
{:else}
  <p class="soft">Reading …</p>
{/if}

<style>
  .two {
    display: grid;
    grid-template-columns: minmax(18rem, 26rem) 1fr;
    gap: var(--s6);
    padding-top: var(--s3);
  }
  @media (max-width: 56.25em) {
    .two {
      grid-template-columns: 1fr;
    }
  }
</style>
