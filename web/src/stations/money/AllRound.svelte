<script lang="ts">
  import Wide from "../../parts/Wide.svelte";
  import { ask, askPatiently, client, wordsOf } from "../../api/client";
  import type { AllRoundAnswer, BandNamed, JobAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { fixed, type Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import LogPages from "../log/LogPages.svelte";

  let jobs = $state<JobAnswer[]>([]);
  let saw_id = $state<number | null>(null);
  let chosen = $state<number[]>([]);
  let among = $state<"rack" | "types">("rack");
  let found = $state<AllRoundAnswer | null>(null);
  let fault = $state<Said>("");
  let busy = $state(false);
  askPatiently(() => client.GET("/api/jobs"))
    .then((all) => {
      jobs = all.filter((j) => j.state !== "done");
      saw_id = shop.saws[0]?.id ?? null;
      chosen = mine(saw_id).map((j) => j.id);
    })
    .catch((problem: unknown) => (fault = wordsOf(problem)));
  const mine = (saw: number | null) => jobs.filter((j) => j.saw_id === saw).slice(0, 20);

  function saw(id: number): void {
    saw_id = id;
    chosen = mine(id).map((j) => j.id);
    found = null;
  }

  async function look(): Promise<void> {
    if (saw_id === null) return;
    busy = true;
    try {
      const body = { saw_id, job_ids: chosen, among };
      found = await ask(client.POST("/api/money/all-round", { body }));
      fault = "";
    } catch (problem) {
      fault = wordsOf(problem);
    } finally {
      busy = false;
    }
  }

  const name = (b: BandNamed) => shop.bandName(b);
  const pick = (id: number) =>
    (chosen = chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id]);
  const best = $derived(found?.ranked[0] ?? null);
</script>

<LogPages title="One band for many jobs" />
<div class="form">
  <label
    >Saw<select value={String(saw_id)} onchange={(e) => saw(Number(e.currentTarget.value))}>
      {#each shop.saws as s (s.id)}<option value={String(s.id)}>{s.saw.name}</option>{/each}
    </select></label
  >
  <label
    >Among<select bind:value={among} onchange={() => (found = null)}>
      <option value="rack">the rack’s bands</option>
      <option value="types">types to buy</option>
    </select></label
  >
  <Action main disabled={chosen.length === 0 || busy} onclick={() => void look()}
    >{busy ? "Reckoning …" : `One band for ${chosen.length} jobs`}</Action
  >
</div>
<ul class="jobs">
  {#each mine(saw_id) as job (job.id)}
    <li>
      <label
        ><input type="checkbox" checked={chosen.includes(job.id)} onchange={() => pick(job.id)} />
        {job.name || `Job ${job.id}`}
        <span class="soft"
          >{shop.materialName(job.material)}, {shop.say(job.height_mm, "length")} × {job.count}</span
        ></label
      >
    </li>
  {:else}<li>No open job is for this saw.</li>{/each}
</ul>
{#if fault}<p role="alert" class="fault">{shop.words(fault)}</p>{/if}
{#if found && !best}
  <p><strong>No band can do any of them.</strong></p>
{:else if found && best}
  <p class="said">
    {#if best.impossible > 0}
      <strong>No one band does them all.</strong>
      {name(best.band)} does {best.jobs.length - best.impossible} of {best.jobs.length} for {shop.money(
        best.total,
      )}.
    {:else}
      <strong>{name(best.band)}</strong> does all of them for
      <strong class="mono">{shop.money(best.total)}</strong>, its one change-over counted.
      {#if found.compromise !== null}
        Changing for each job’s own choice comes to <span class="mono"
          >{shop.money(found.changing_total)}</span
        >
        with {found.changes} change-overs:
        <strong
          >the one band {found.compromise > 0 ? "costs" : "saves"}
          {shop.money(Math.abs(found.compromise))}</strong
        >{found.close ? ", too close to call" : ""}.
      {/if}
    {/if}
    {#if found.pair.length === 2 && found.pair_total !== null}
      {#if found.second_saves !== null}
        Two bands between them, {found.pair.map(name).join(" and ")}:
        <span class="mono">{shop.money(found.pair_total)}</span>{#if found.pair_impossible > 0},
          {found.pair_impossible} still impossible{:else if best.impossible === 0},
          <strong>{shop.money(found.second_saves)} less than the one</strong>{/if}.
      {:else}
        A second band would save nothing.
      {/if}
    {/if}
  </p>
  <Wide label="The bands">
    <table>
      <thead>
        <tr>
          <th scope="col">band</th>
          {#each best.jobs as job (job.job_id)}<th scope="col">{job.name}</th>{/each}
          <th scope="col">in all</th>
        </tr>
      </thead>
      <tbody>
        {#each found.ranked as line (line.band.band_id ?? line.band.label)}
          <tr>
            <th scope="row">{name(line.band)}</th>
            {#each line.jobs as job (job.job_id)}
              <td class="mono">{job.cost === null ? "cannot" : fixed(job.cost, 2)}</td>
            {/each}
            <td class="mono"
              >{#if line.impossible > 0}<span class="soft"
                  >{line.jobs.length - line.impossible} of {line.jobs.length}</span
                >{:else}<strong>{fixed(line.total, 2)}</strong>{/if}</td
            >
          </tr>
        {/each}
        <tr class="changing">
          <th scope="row">changing</th>
          {#each found.changing as job (job.job_id)}
            <td
              ><span class="mono">{job.cost === null ? "cannot" : fixed(job.cost, 2)}</span>
              <span class="soft">{job.band ? name(job.band) : ""}</span></td
            >
          {/each}
          <td class="mono"><strong>{fixed(found.changing_total, 2)}</strong></td>
        </tr>
      </tbody>
    </table>
  </Wide>
  <p class="soft">
    Each job’s cost is over its whole lot without the change-over; the choice for each follows the
    house rules, so that its band need not be its cheapest.
  </p>
{/if}

<style>
  .form {
    padding-bottom: var(--s3);
  }
  .form label {
    display: grid;
  }
  .jobs label {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s3);
    align-items: center;
    min-height: var(--touch);
  }
  .said {
    max-width: 52rem;
    padding: var(--s3) 0;
  }
  th,
  td {
    font-weight: 400;
    padding: var(--s1) var(--s4) var(--s1) 0;
  }
  thead th {
    vertical-align: bottom;
  }
  .changing td span {
    display: block;
  }
</style>
