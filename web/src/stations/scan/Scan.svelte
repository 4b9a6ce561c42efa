<script lang="ts">
  import { onDestroy } from "svelte";

  import { ask, client, wordsOf } from "../../api/client";
  import type { BandEventInput, BandPage } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import type { Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import Who from "../../parts/fields/Who.svelte";
  import EdgeTip from "../../parts/pictures/EdgeTip.svelte";
  import JudgeTips from "../rack/band/JudgeTips.svelte";
  import RackPages from "../rack/RackPages.svelte";
  import { bandOf, codeIn } from "./reader";

  const EVERY_MS = 200;
  let video = $state<HTMLVideoElement>();
  let stream: MediaStream | null = null;
  let looking = $state(false);
  let fault = $state<Said>("");
  let page = $state<BandPage | null>(null);
  let note = $state("");
  let who = $state("");
  const canvas = document.createElement("canvas");
  let timer: ReturnType<typeof setTimeout> | undefined;

  function stop(): void {
    clearTimeout(timer);
    stream?.getTracks().forEach((track) => track.stop());
    stream = null;
    looking = false;
  }
  onDestroy(stop);

  function why(problem: unknown): string {
    if (!globalThis.isSecureContext)
      return "The camera works on the shop’s HTTPS address only: open the page there.";
    const name = problem instanceof DOMException ? problem.name : "";
    if (name === "NotAllowedError") return "The camera was not allowed. Allow it for this page.";
    return "No camera answers here. Type the tag into Find instead.";
  }

  async function look(): Promise<void> {
    fault = "";
    page = null;
    try {
      stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment" } });
    } catch (problem) {
      fault = why(problem);
      return;
    }
    looking = true;
    if (!video) return;
    video.srcObject = stream;
    await video.play();
    timer = setTimeout(() => void read(), EVERY_MS);
  }

  async function read(): Promise<void> {
    if (!looking || !video) return;
    const { videoWidth: w, videoHeight: h } = video;
    if (w > 0) {
      canvas.width = w;
      canvas.height = h;
      canvas.getContext("2d", { willReadFrequently: true })?.drawImage(video, 0, 0);
      const code = await codeIn(canvas).catch((problem: unknown) => {
        fault = wordsOf(problem);
        return null;
      });
      const id = code === null ? null : bandOf(code);
      if (id !== null) {
        stop();
        await open(id);
        return;
      }
      if (code !== null) fault = "That code is no band’s label.";
    }
    timer = setTimeout(() => void read(), EVERY_MS);
  }

  async function open(band_id: number): Promise<void> {
    try {
      page = await ask(client.GET("/api/bands/{band_id}", { params: { path: { band_id } } }));
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  async function record(body: BandEventInput, said: string): Promise<void> {
    if (!page) return;
    const band_id = page.band.id;
    try {
      await ask(
        client.POST("/api/bands/{band_id}/events", { params: { path: { band_id } }, body }),
      );
      notice.say(said);
      note = "";
      await open(band_id);
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  async function mount(saw_id: number, name: string): Promise<void> {
    if (!page) return;
    const body = { band_id: page.band.id, who };
    try {
      await ask(client.POST("/api/saws/{saw_id}/mount", { params: { path: { saw_id } }, body }));
      notice.say(`${page.band.label} is on ${name}.`);
      await open(page.band.id);
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  const fits = $derived(
    shop.saws.filter((s) => {
      const [low, high] = s.saw.band_length_mm as [number, number];
      return page !== null && page.band.length_mm >= low && page.band.length_mm <= high;
    }),
  );
</script>

<RackPages title="Scan a label" />
{#if fault}<p role="alert" class="fault">{shop.words(fault)}</p>{/if}
{#if !looking}
  <Action main={page === null} onclick={() => void look()}
    >{page === null ? "Open the camera" : "Scan another"}</Action
  >
{:else}
  <Action onclick={stop}>Stop</Action>
{/if}
<video bind:this={video} hidden={!looking} playsinline muted aria-label="What the camera sees"
></video>
{#if page}
  <section aria-label="The band scanned">
    <h2>
      <a class="mono" href="#/rack/{page.band.id}">{page.band.label}</a>
      <EdgeTip edge={page.band.edge} radius_um={page.band.tip_radius_um} />
    </h2>
    <p>{shop.typeName(page.band)}, {shop.say(page.band.length_mm, "length")}</p>
    <p><strong>{shop.words(page.next.words)}</strong></p>
    <Who value={who} onpick={(name) => (who = name)} />
    {#if page.band.mounted_on}
      <p>On {page.band.mounted_on}.</p>
    {:else if page.band.state === "rack"}
      <div class="row">
        {#each fits as saw (saw.id)}
          <Action onclick={() => void mount(saw.id, saw.saw.name)}>Mount on {saw.saw.name}</Action>
        {:else}<span class="soft">Fits no saw here.</span>{/each}
      </div>
    {/if}
    <JudgeTips
      onjudge={(value, detail) =>
        void record({ kind: "edge_judged", value, detail, who }, "Judged.")}
    />
    <div class="row">
      <label>Note<input bind:value={note} maxlength="400" /></label>
      <Action
        disabled={!note.trim()}
        onclick={() => void record({ kind: "note", detail: note, who }, "Noted.")}>Keep it</Action
      >
    </div>
  </section>
{/if}

<style>
  video {
    display: block;
    width: min(100%, 40rem);
    margin-top: var(--s3);
    background: var(--ink);
  }
  video[hidden] {
    display: none;
  }
  section {
    padding-top: var(--s4);
  }
  h2 {
    display: flex;
    gap: var(--s4);
    align-items: center;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: end;
    padding-top: var(--s3);
  }
  input {
    min-width: 14rem;
  }
</style>
