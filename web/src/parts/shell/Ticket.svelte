<script lang="ts">
  import { router } from "svelte-spa-router";

  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";

  let width = $state(600);
  let height = $state(64);
  const N = 9;
  /** A ticket's outline: a quarter circle taken out of each corner. */
  const outline = $derived(
    `M${N} .5H${width - N}A${N} ${N} 0 0 0 ${width - 0.5} ${N}V${height - N}` +
      `A${N} ${N} 0 0 0 ${width - N} ${height - 0.5}H${N}A${N} ${N} 0 0 0 .5 ${height - N}` +
      `V${N}A${N} ${N} 0 0 0 ${N} .5Z`,
  );
  const STAGES = [
    { key: "plan", name: "Plan" },
    { key: "setup", name: "Set up" },
    { key: "run", name: "Run" },
    { key: "inspect", name: "Inspect" },
  ] as const;
  type Stage = (typeof STAGES)[number]["key"];
  /** What comes next for a job, by the state it is in. */
  const NEXT: Record<string, Stage> = {
    planned: "setup",
    ready: "run",
    running: "run",
    done: "inspect",
  };

  const draft = $derived(currentJob.draft);
  const job = $derived(currentJob.job);
  const page = $derived(router.location.split("/")[1] || "plan");
  /** On pages of the job its whole way is shown; elsewhere one line says where it goes on. */
  const onWay = $derived(page === "jobs" || STAGES.some((s) => s.key === page));
  const next = $derived(
    job?.state === "planned" && job.setup_id === null ? "plan" : (NEXT[job?.state ?? ""] ?? "plan"),
  );
  const nextName = $derived(STAGES.find((s) => s.key === next)?.name);
  const reached = $derived(STAGES.findIndex((s) => s.key === next));
  const tension = $derived(shop.saw(draft.saw_id)?.tension_state === "on" ? "tensioned" : "slack");
  const saw = $derived(shop.saw(draft.saw_id)?.saw.name);
  const work = $derived(
    `${shop.materialName(draft.material)} ${shop.number(draft.height_mm, "length")} × ${shop.say(draft.length_mm, "long")} × ${draft.count}`,
  );
  const progress = $derived(job ? `, ${job.done_pieces} of ${draft.count}` : "");
</script>

<header class="ticket" aria-label="Job in hand" bind:clientWidth={width} bind:clientHeight={height}>
  <svg {width} {height} aria-hidden="true" class="no-print"><path d={outline} /></svg>
  {#if onWay}
    <a class="part wide" href="#/jobs" title="All jobs">
      <span class="label"
        >{job ? `job ${job.id}` : "draft"}{currentJob.changed && job ? ", edited" : ""}</span
      >
      <strong>{currentJob.name}</strong>
    </a>
    <a class="part wide work" href="#/plan">
      <span class="label">{work}</span>
      <strong>{saw ? `${saw}, ${tension}` : "no saw chosen"}</strong>
    </a>
  {/if}
  <a class="line" data-way={onWay} href="#/{next}">
    <span><strong>{currentJob.name}</strong>{progress}</span>
    <span aria-hidden="true">→</span> <strong>{nextName}</strong>
  </a>
  {#if onWay}
    <nav class="way no-print" aria-label="The job’s way">
      {#each STAGES as stage, i (stage.key)}
        <a
          href="#/{stage.key}"
          aria-current={page === stage.key ? "step" : undefined}
          data-done={i < reached}
          data-next={i === reached}>{stage.name}</a
        >
      {/each}
    </nav>
  {/if}
</header>

<style>
  .ticket {
    position: relative;
    display: flex;
    align-items: stretch;
    min-height: 3.5rem;
    padding: 0 var(--s3);
  }
  svg {
    position: absolute;
    inset: 0;
    z-index: -1;
  }
  .ticket > svg path {
    fill: var(--paper);
    stroke: var(--hairline);
  }
  .part {
    display: grid;
    align-content: center;
    padding: var(--s1) var(--s3);
    color: inherit;
    text-decoration: none;
    min-width: 0;
    flex: 0 1 auto;
    line-height: 1.3;
  }
  a.part:hover strong,
  .line:hover strong {
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  .label {
    color: var(--ink-soft);
    font-size: var(--text-small);
  }
  strong,
  .label,
  .line > span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  strong {
    font-weight: 650;
  }
  .line {
    display: none;
    gap: var(--s2);
    align-items: center;
    min-width: 0;
    padding: 0 var(--s2);
    color: inherit;
    text-decoration: none;
  }
  .line[data-way="false"] {
    display: flex;
    color: var(--ink-soft);
  }
  .way {
    display: flex;
    flex: none;
    gap: var(--s2);
    margin-left: auto;
  }
  .way a {
    display: flex;
    align-items: center;
    gap: var(--s2);
    min-width: var(--touch);
    padding: 0 var(--s2);
    color: inherit;
    text-decoration: none;
    white-space: nowrap;
  }
  .way a:hover {
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  .way a::before {
    content: "";
    width: 0.9rem;
    height: 0.9rem;
    border: 2px solid var(--jade);
    border-radius: 50%;
  }
  .way a[data-done="true"]::before {
    background: var(--jade);
  }
  .way a[data-next="true"] {
    font-weight: 650;
  }
  .way a[data-next="true"]::before {
    background: linear-gradient(90deg, var(--jade) 50%, transparent 50%);
  }
  .way a[aria-current] {
    font-weight: 650;
    border-bottom: 3px solid var(--brass);
    border-top: 3px solid transparent;
  }
  @media (max-width: 68em) {
    .work {
      display: none;
    }
  }
  @media (max-width: 45em) {
    .ticket {
      min-height: var(--touch);
    }
    .part,
    .way {
      display: none;
    }
    .line[data-way] {
      display: flex;
      min-height: var(--touch);
      flex: 1;
    }
  }
</style>
