<script lang="ts">
  import { push } from "svelte-spa-router";

  import { askPatiently, client } from "../api/client";
  import type { JobAnswer } from "../api/schema";
  import { currentJob } from "../lib/currentJob.svelte";
  import { notice } from "../lib/notice.svelte";
  import { shop } from "../lib/shop.svelte";
  import Action from "./Action.svelte";

  interface Props {
    /** Why there is nothing else here. */
    title: string;
    why?: string;
    /** The stage a job that is taken up goes on at. */
    stage: "setup" | "run" | "inspect";
  }
  const { title, why = "", stage }: Props = $props();
  const MOST = 8;
  const ORDER = ["running", "ready", "planned", "done"];
  let jobs = $state.raw<JobAnswer[] | null>(null);
  const place = (job: JobAnswer) => ORDER.indexOf(job.state);
  const shown = $derived(
    [...(jobs ?? [])]
      .filter((job) => job.state !== "done" || stage === "inspect")
      .sort((a, b) => place(a) - place(b))
      .slice(0, MOST),
  );

  askPatiently(() => client.GET("/api/jobs"))
    .then((found) => (jobs = found))
    .catch((problem: unknown) => notice.fail(problem));

  function take(job: JobAnswer): void {
    currentJob.take(job);
    void push(stage === "setup" && job.setup_id === null ? "/plan" : `/${stage}`);
  }
</script>

<section>
  <h1>{title}</h1>
  {#if why}<p>{why}</p>{/if}
  <h2>Jobs to take up</h2>
  {#if jobs}
    <ul class="rows">
      {#each shown as job (job.id)}
        <li>
          <button type="button" onclick={() => take(job)}><strong>{job.name}</strong></button>
          <span>{job.saw_name ?? "no saw"}{job.band_label ? `, ${job.band_label}` : ""}</span>
          <span class="mono">{job.done_pieces}/{job.count}</span>
          <span>{job.state}</span>
        </li>
      {:else}
        <li class="soft">None is open.</li>
      {/each}
    </ul>
  {/if}
  <div class="actions">
    <Action main href="#/plan">Plan one</Action>
    <Action href="#/jobs">All jobs</Action>
  </div>
  <h2>On the saws</h2>
  <ul class="rows">
    {#each shop.saws as saw (saw.id)}
      <li>
        <a href="#/shop/saws/{saw.id}/stand"><strong>{saw.saw.name}</strong></a>
        <span
          >{saw.mounted_label
            ? `${saw.mounted_label}, ${saw.tension_state === "on" ? "tensioned" : "slack"}`
            : "no band"}</span
        >
      </li>
    {/each}
  </ul>
</section>

<style>
  section {
    display: grid;
    gap: var(--s3);
    max-width: 52rem;
  }
  li {
    grid-template-columns: minmax(10rem, 2fr) 1.5fr 4rem 5rem;
  }
  li button,
  li a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    padding: 0;
    color: var(--jade);
    text-align: left;
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 1fr auto auto;
    }
    li > :first-child {
      grid-column: 1 / -1;
    }
  }
</style>
