<script lang="ts">
  import { push } from "svelte-spa-router";

  import { ask, askPatiently, client } from "../../api/client";
  import type { JobAnswer, JobFile } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { recall, remember } from "../../lib/storage";
  import { currentJob } from "../../lib/currentJob.svelte";
  import Action from "../../parts/Action.svelte";
  import { ORDERS, shownJobs, type JobFilter, type JobOrder } from "./jobList";

  let jobs = $state<JobAnswer[] | null>(null);
  let picker = $state<HTMLInputElement>();
  const AT_FIRST = 40;
  let filter = $state<JobFilter>(recall("jobs.filter", { text: "", saw: null, done: false }));
  let order = $state<JobOrder>(recall("jobs.order", "newest"));
  let most = $state(AT_FIRST);
  const shown = $derived(shownJobs(jobs ?? [], filter, order));

  function look(change: Partial<JobFilter>): void {
    filter = { ...filter, ...change };
    most = AT_FIRST;
    remember("jobs.filter", { ...filter, text: "" });
  }

  async function rewrite(job: JobAnswer, change: { name?: string; note?: string }): Promise<void> {
    const params = { path: { job_id: job.id } };
    try {
      const body = { version: job.version, ...change };
      const saved = await ask(client.PATCH("/api/jobs/{job_id}", { params, body }));
      if (currentJob.id === job.id) currentJob.take(saved);
    } catch (problem) {
      notice.fail(problem);
    }
    await load();
  }

  const PAGE = 100;
  const done = $derived((jobs ?? []).filter((j) => j.state === "done"));
  let older = $state(false);

  async function load(): Promise<void> {
    const found = await askPatiently(() => client.GET("/api/jobs"));
    older = found.filter((j) => j.state === "done").length === PAGE;
    jobs = found;
  }

  /** Done jobs before the ones that are here. */
  async function readOlder(): Promise<void> {
    const last = [...done].sort(ORDERS.newest.by).at(-1);
    if (!last || !jobs) return;
    const query = { before: last.id };
    const found = await askPatiently(() => client.GET("/api/jobs", { params: { query } }));
    older = found.length === PAGE;
    jobs = [...jobs, ...found];
    filter = { ...filter, done: true };
  }
  void load().catch((p: unknown) => notice.fail(p));

  function begin(): void {
    currentJob.startNew(shop.saws[0]?.id ?? null);
    void push("/plan");
  }

  function open(job: JobAnswer): void {
    currentJob.take(job);
    void push(`/plan/${job.id}`);
  }

  async function duplicate(job: JobAnswer): Promise<void> {
    const params = { path: { job_id: job.id } };
    open(await ask(client.POST("/api/jobs/{job_id}/duplicate", { params })));
  }

  async function remove(job: JobAnswer): Promise<void> {
    const params = { path: { job_id: job.id } };
    const { change_id } = await ask(client.DELETE("/api/jobs/{job_id}", { params }));
    if (currentJob.id === job.id) currentJob.startNew(job.saw_id);
    await load();
    notice.canUndo(`${job.name} is deleted.`, change_id, load);
  }

  async function close(job: JobAnswer): Promise<void> {
    const params = { path: { job_id: job.id } };
    const state = job.state === "done" ? "planned" : "done";
    await ask(client.POST("/api/jobs/{job_id}/state", { params, body: { state } }));
    await load();
  }

  async function takeFile(): Promise<void> {
    const file = picker?.files?.[0];
    if (!file) return;
    let body: JobFile;
    try {
      body = JSON.parse(await file.text()) as JobFile;
    } catch {
      notice.fail(new Error(`${file.name} is not a job file: it is not valid JSON.`));
      return;
    }
    open(await ask(client.POST("/api/jobs/import", { body })));
    notice.say(`${file.name} is read.`);
  }
</script>

<header>
  <h1>Jobs</h1>
  <Action main onclick={begin}>New job</Action>
  <Action onclick={() => picker?.click()}>Read a job file</Action>
  <input
    bind:this={picker}
    type="file"
    accept=".json,application/json"
    class="unseen"
    tabindex="-1"
    aria-label="Job file"
    onchange={() => void takeFile()}
  />
</header>
{#if jobs}
  <div class="filters">
    <label>
      Find a job
      <input
        value={filter.text}
        autocomplete="off"
        placeholder="name, note, material, saw …"
        oninput={(e) => look({ text: e.currentTarget.value })}
      />
    </label>
    <label>
      Saw
      <select
        value={String(filter.saw)}
        onchange={(e) => look({ saw: Number(e.currentTarget.value) || null })}
      >
        <option value="null">any</option>
        {#each shop.saws as saw (saw.id)}<option value={String(saw.id)}>{saw.saw.name}</option
          >{/each}
      </select>
    </label>
    <label>
      Sort by
      <select
        value={order}
        onchange={(e) => {
          order = e.currentTarget.value as JobOrder;
          remember("jobs.order", order);
        }}
      >
        {#each Object.entries(ORDERS) as [key, { name }] (key)}<option value={key}>{name}</option
          >{/each}
      </select>
    </label>
    <button type="button" aria-pressed={filter.done} onclick={() => look({ done: !filter.done })}
      >done ones too</button
    >
    <p class="soft" role="status">{shown.length} of {jobs.length} jobs</p>
  </div>
  <ul class="rows">
    {#each shown.slice(0, most) as job (job.id)}
      <li>
        <button type="button" class="open" onclick={() => open(job)}>
          <strong>{job.name}</strong>
          <span class="soft"
            >{job.operation}, {job.material_name}, {shop.say(job.height_mm, "length")} high, {shop.say(
              job.length_mm,
              "long",
            )} long</span
          >
        </button>
        <span>{job.saw_name ?? "no saw"}{job.band_label ? ` · ${job.band_label}` : ""}</span>
        <span class="mono">{job.done_pieces}/{job.count}</span>
        <span>{job.state}</span>
        <span class="acts">
          <Action onclick={() => void duplicate(job)}>Again</Action>
          <Action onclick={() => void close(job)}>{job.state === "done" ? "Reopen" : "Done"}</Action
          >
          {#if job.saw_id}<Action href="/api/jobs/{job.id}/file">File</Action>{/if}
          <Action onclick={() => void remove(job)}>Delete</Action>
        </span>
        <details class="words">
          <summary>{job.note || "Name and note"}</summary>
          <label
            >Name<input
              value={job.name}
              maxlength="120"
              onchange={(e) => void rewrite(job, { name: e.currentTarget.value })}
            /></label
          >
          <label
            >Note<textarea
              rows="2"
              maxlength="2000"
              value={job.note}
              onchange={(e) => void rewrite(job, { note: e.currentTarget.value })}
            ></textarea></label
          >
        </details>
      </li>
    {:else}
      <li class="soft">
        {jobs.length === 0
          ? "No job is saved yet. Write one as a sentence in Plan and save it."
          : "No job is like that."}
      </li>
    {/each}
  </ul>
  {#if shown.length > most}
    <Action onclick={() => (most += AT_FIRST)}>{shown.length - most} more</Action>
  {/if}
  {#if older}<Action onclick={() => void readOlder()}>Older done jobs</Action>{/if}
{:else}
  <p class="soft">Reading the jobs …</p>
{/if}

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: var(--s4);
    padding-bottom: var(--s4);
  }
  li {
    grid-template-columns: minmax(14rem, 2.2fr) 1.3fr 4rem 5.5rem auto;
    padding: var(--s1) 0;
  }
  .open {
    display: grid;
    text-align: left;
    min-height: var(--touch);
    background: none;
    border: 0;
    padding: var(--s1) 0;
  }
  .open:hover strong {
    text-decoration: underline;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
  }
  .filters {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    padding-bottom: var(--s4);
  }
  .filters button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    border-bottom: var(--rule) solid var(--hairline);
  }
  .filters button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-bottom-color: var(--jade);
  }
  .words {
    grid-column: 1 / -1;
  }
  .words summary {
    color: var(--ink-soft);
  }
  @media (max-width: 56.25em) {
    li {
      grid-template-columns: 1fr auto auto;
    }
    .open,
    .acts {
      grid-column: 1 / -1;
    }
  }
</style>
