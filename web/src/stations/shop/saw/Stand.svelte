<script lang="ts">
  import { askPatiently, client, ask, wordsOf } from "../../../api/client";
  import type { SawState } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { currentJob } from "../../../lib/currentJob.svelte";
  import { day, duration, significant, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import AlignmentCoach from "../../setup/tools/AlignmentCoach.svelte";
  import Wide from "../../../parts/Wide.svelte";
  import FittingsForm from "./FittingsForm.svelte";
  import PutOn from "../../../parts/PutOn.svelte";
  import Due from "../../upkeep/Due.svelte";
  import ScalePage from "./ScalePage.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const saw_id = $derived(Number(params?.id));
  let stand = $state<SawState | null>(null);
  let missing = $state<Said>("");
  let defect = $state("");
  let stops = $state(false);
  let who = $state("");

  async function load(): Promise<void> {
    const query = currentJob.id === null ? {} : { job_id: currentJob.id };
    try {
      stand = await askPatiently(() =>
        client.GET("/api/saws/{saw_id}/stand", { params: { path: { saw_id }, query } }),
      );
      missing = "";
    } catch (problem) {
      missing = wordsOf(problem);
    }
  }
  // The address names the saw and the ticket the job; how it stands is the server's to say.
  $effect(() => {
    if (saw_id > 0) void load();
  });

  async function note(): Promise<void> {
    try {
      const body = { text: defect.trim(), stops, who };
      await ask(client.POST("/api/saws/{saw_id}/defects", { params: { path: { saw_id } }, body }));
      defect = "";
      stops = false;
      await load();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function close(defect_id: number): Promise<void> {
    try {
      const body = { who: who.trim() || "somebody" };
      const path = { defect_id };
      const { change_id } = await ask(
        client.POST("/api/defects/{defect_id}/close", { params: { path }, body }),
      );
      await load();
      notice.canUndo("Closed.", change_id, load);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

{#if missing}
  <h1>{shop.words(missing)}</h1>
  <Action href="#/shop">Shop</Action>
{:else if stand}
  {@const saw = stand.saw}
  <header>
    <h1>{saw.saw.name} as it stands</h1>
    <p class="ready" data-state={stand.verdict.state}>{shop.words(stand.verdict.words)}</p>
    {#if stand.verdict.against.length > 1}
      <ul class="against">
        {#each stand.verdict.against.slice(1) as words, n (n)}<li>{shop.words(words)}</li>{/each}
      </ul>
    {/if}
    {#if stand.verdict.state === "not_ready" && stand.verdict.not_looked_at.length > 0}
      <p class="soft">Nobody has looked lately at: {stand.verdict.not_looked_at.join(", ")}.</p>
    {/if}
    <p>
      <a href="#/shop/saws/{saw_id}/upkeep">Upkeep and commissioning</a>
      <a href="#/faults/book?saw={saw_id}">Trouble book</a>
    </p>
    <PutOn saw={shop.saw(saw_id)} ondone={() => void load()} />
    <Due {saw_id} />
  </header>
  <div class="two">
    <section aria-label="What is on it">
      <dl>
        <div>
          <dt>band</dt>
          <dd>
            {#if saw.mounted_label}<a class="mono" href="#/rack/{saw.mounted_band_id}"
                >{saw.mounted_label}</a
              >{:else}none{/if}
          </dd>
        </div>
        <div>
          <dt>tension</dt>
          <dd>
            {saw.tension_state === "on"
              ? `on${saw.tension_stress_MPa === null ? "" : `, ${shop.say(saw.tension_stress_MPa, "stress")}`}`
              : saw.tension_state === "slack"
                ? "slack"
                : "not recorded"}{saw.tension_since ? `, since ${day(saw.tension_since)}` : ""}
          </dd>
        </div>
        <div>
          <dt>speed</dt>
          <dd>
            {stand.speed_set_m_s === null
              ? "not recorded"
              : `set to ${shop.say(stand.speed_set_m_s, "speed")}`}
          </dd>
        </div>
        {#each stand.guides as g (g.key)}
          <div>
            <dt>{g.name}</dt>
            <dd>
              {#if g.set_at}set {day(g.set_at)}{g.who ? ` by ${g.who}` : ""}; {g.hours_since
                  ? duration(3600 * g.hours_since)
                  : "nothing"} sawn since{:else}no card has set them yet{/if}
              {#each g.notes as n (n.at)}
                <p class="soft">{day(n.at)}: {n.text}{n.who ? `, ${n.who}` : ""}</p>
              {/each}
            </dd>
          </div>
        {/each}
        <div>
          <dt>last set up</dt>
          <dd>
            {#if stand.last}<a href="#/setup/{stand.last.id}"
                >{day(stand.last.finished_at ?? stand.last.started_at)}</a
              >
              for {stand.last.job_name}, by {stand.last.who.join(", ") || "nobody named"}{:else}no
              card finished yet{/if}
            {#each stand.last?.allowed ?? [] as words (words)}
              <br /><strong>{words}</strong>
            {/each}
          </dd>
        </div>
      </dl>
    </section>
    {#if stand.next_job}
      {@const next = stand.next_job}
      <section aria-label="The next job">
        <h2>{next.job_name}</h2>
        <p class="verdict">{shop.words(next.words)}</p>
        <Wide label="As it is, or changed">
          <table>
            <thead>
              <tr><th></th><th>minutes</th><th>of it change</th><th>money</th><th>face</th></tr>
            </thead>
            <tbody>
              {#each [{ name: "as it is", way: next.as_it_is }, { name: "changed", way: next.changed }] as line (line.name)}
                {#if line.way}
                  <tr>
                    <th scope="row">{line.name}, {line.way.band_label}</th>
                    {#if line.way.able}
                      <td class="mono">{significant(line.way.minutes, 3)}</td>
                      <td class="mono">{significant(line.way.change_minutes, 2)}</td>
                      <td class="mono">{shop.money(line.way.money)}</td>
                      <td>{line.way.finish}</td>
                    {:else}<td colspan="4" class="soft">cannot: {shop.words(line.way.words)}</td
                      >{/if}
                  </tr>
                {/if}
              {/each}
            </tbody>
          </table>
        </Wide>
      </section>
    {/if}
  </div>
  <section aria-label="Defects">
    <h2>Open defects</h2>
    {#each stand.defects as d (d.id)}
      <p class="defect" data-stops={d.stops}>
        <span>{d.stops ? "Stops the saw: " : ""}{d.text}</span>
        <span class="soft">{day(d.at)}{d.who ? `, ${d.who}` : ""}</span>
        <Action onclick={() => void close(d.id)}>Closed</Action>
      </p>
    {:else}<p class="soft">None noted.</p>{/each}
    <div class="line">
      <label>What is wrong<input bind:value={defect} class="wide" /></label>
      <label class="check"><input type="checkbox" bind:checked={stops} /> it stops the saw</label>
      <label>Who<input bind:value={who} autocomplete="off" /></label>
      <Action disabled={!defect.trim()} onclick={() => void note()}>Note it</Action>
    </div>
  </section>
  <section>
    <h2>Set-ups of this saw</h2>
    {#each stand.setups as s (s.id)}
      <p class="kept">
        <a href="#/setup/{s.id}">{day(s.started_at)}</a>
        <span class="mono">{s.band_label}</span>
        <span>{s.job_name}</span>
        <span class="mono"
          >{s.stress_MPa === null ? "" : shop.say(s.stress_MPa, "stress")}
          {s.means ?? ""}</span
        >
        <span class="soft">{s.finished_at ? "finished" : "begun"}</span>
      </p>
    {:else}<p class="soft">None yet.</p>{/each}
  </section>
  <details>
    <summary>Its own tension scale</summary>
    <ScalePage {saw_id} />
  </details>
  <details>
    <summary>Its wheels: the alignment coach</summary>
    <AlignmentCoach {saw_id} {who} />
  </details>
  <details>
    <summary>What is known of it for setting up</summary>
    {#key stand.saw.version}
      <FittingsForm
        {saw_id}
        version={stand.saw.version}
        fittings={stand.fittings}
        onsaved={() => void load()}
      />
    {/key}
  </details>
  <p><Action href="#/shop/saws/{saw_id}">Edit the saw itself</Action></p>
{:else}
  <p class="soft">Reading …</p>
{/if}

<style>
  .ready {
    color: var(--vermilion);
    font-weight: 650;
    font-size: var(--text-large);
  }
  .ready[data-state="ready"] {
    color: var(--jade);
  }
  .ready[data-state="cannot_tell"] {
    color: var(--ink);
  }
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
    gap: var(--s6);
  }
  section {
    padding-top: var(--s4);
  }
  h2 {
    font-size: var(--text-large);
  }
  dl div {
    display: grid;
    grid-template-columns: 6.5rem 1fr;
    gap: var(--s3);
    padding: var(--s2) 0;
    border-bottom: var(--hair) solid var(--hairline);
  }
  .verdict {
    font-weight: 650;
    padding: var(--s2) 0;
  }
  th,
  td {
    padding: var(--s2) var(--s2) var(--s2) 0;
    border-bottom: var(--hair) solid var(--hairline);
    font-weight: 400;
  }
  thead th {
    font-size: var(--text-small);
  }
  .defect,
  .kept {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    align-items: center;
    min-height: var(--touch);
    border-bottom: var(--hair) solid var(--hairline);
  }
  .defect[data-stops="true"] {
    color: var(--vermilion);
    font-weight: 650;
  }
  .kept a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    min-width: 7rem;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    padding-top: var(--s2);
  }
  label input:not([type="checkbox"]) {
    min-height: var(--touch);
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
    font-weight: 400;
  }
  .wide {
    width: min(24rem, 80vw);
  }
  .check {
    display: inline-flex;
    gap: var(--s2);
    align-items: center;
    min-height: var(--touch);
  }
  .check input {
    width: 1.4rem;
    height: 1.4rem;
    accent-color: var(--jade);
  }
  details {
    border-top: var(--hair) solid var(--hairline);
    margin-top: var(--s3);
  }
  summary {
    min-height: 3.25rem;
    font-size: var(--text-large);
  }
</style>
