<script lang="ts">
  import { askPatiently, client } from "../../../api/client";
  import type { DriftTrial, KeptSetup } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { day, significant } from "../../../lib/figures/units";

  interface Props {
    band_id: number;
  }
  const { band_id }: Props = $props();
  let setups = $state<KeptSetup[]>([]);
  let trials = $state<DriftTrial[]>([]);

  // The band names its set-ups and drift; they are the server's.
  $effect(() => {
    const params = { path: { band_id } };
    Promise.all([
      askPatiently(() => client.GET("/api/bands/{band_id}/setups", { params })),
      askPatiently(() => client.GET("/api/bands/{band_id}/drift", { params })),
    ])
      .then(([s, t]) => ([setups, trials] = [s, t]))
      .catch((p: unknown) => notice.fail(p));
  });
</script>

{#if setups.length > 0 || trials.length > 0}
  <section aria-label="Set up with it">
    <h2>Set up with it</h2>
    {#each setups as s (s.id)}
      <p>
        <a href="#/setup/{s.id}">{day(s.started_at)}</a>
        {s.saw_name}, {s.job_name}{s.stress_MPa === null
          ? ""
          : `, ${shop.say(s.stress_MPa, "stress")}`}{s.means ? ` by ${s.means}` : ""}
        <span class="soft">{s.finished_at ? "" : "begun"}</span>
      </p>
    {/each}
    {#if trials.length > 0}
      <p>
        Drift: {trials.map((t) => `${significant(t.angle_deg, 2)}°`).join(", ")}
        <span class="soft">oldest first; one that grows tells of uneven wear</span>
      </p>
    {/if}
  </section>
{/if}

<style>
  section {
    padding-top: var(--s4);
  }
  h2 {
    font-size: var(--text-large);
  }
  p {
    border-bottom: var(--hair) solid var(--hairline);
    padding: var(--s1) 0;
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    padding-right: var(--s3);
  }
</style>
