<script lang="ts">
  import { ask, client, wordsOf } from "../../../api/client";
  import type {
    OneReadingInput as OneReading,
    SetupAnswer,
    TensionAnswer,
  } from "../../../api/schema";
  import { choicesOf, fieldsOf } from "../../../lib/forms";
  import { notice } from "../../../lib/notice.svelte";
  import { recall, remember } from "../../../lib/storage";
  import { shop } from "../../../lib/shop.svelte";
  import { percent, significant, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Listen from "./Listen.svelte";
  import TensionForms from "./TensionForms.svelte";
  import { MEANS, type Means } from "../means";
  import type { SetupState } from "../setup.svelte";

  interface Props {
    card: SetupState;
    setup: SetupAnswer;
  }
  const { card, setup }: Props = $props();

  const means = $derived(card.means);
  const shown = $derived(fieldsOf("means").find((m) => m.key === means));
  const tension = $derived(setup.card.tension);

  let value = $state<number | null>(null);
  // A kept list of plucks belongs to this card alone.
  const key = $derived(`plucks.${setup.id}`);
  let plucks = $derived(recall<number[]>(key, []));
  let deflection = $state<number | null>(null);
  let answer = $state<TensionAnswer | null>(null);
  /** The last reading by each means on this card, to hold the next one against. */
  let taken = $state<Partial<Record<Means, OneReading>>>({});
  let fault = $state<Said>("");

  async function read(values: number[]): Promise<void> {
    const params = { path: { setup_id: setup.id } };
    const mine: OneReading = {
      means,
      values,
      deflection_mm:
        means === "push" ? (deflection ?? tension.side_push?.deflection_mm ?? null) : null,
    };
    const other = MEANS.map((m) => taken[m]).find((t) => t && t.means !== means) ?? null;
    const body = { ...mine, against: other };
    try {
      answer = await ask(client.POST("/api/setups/{setup_id}/tension", { params, body }));
      fault = "";
      taken = { ...taken, [means]: mine };
      card.type("tension", {
        means,
        left: { ...card.draft("tension").left, stress_MPa: rounded(answer.reading.stress_MPa) },
      });
    } catch (problem) {
      answer = null;
      fault = wordsOf(problem);
    }
  }

  function rounded(stress: number): number {
    return Number(stress.toPrecision(4));
  }

  function heard(hertz: number): void {
    plucks = [...plucks, Number(hertz.toPrecision(5))].slice(-9);
    remember(key, plucks);
    void read(plucks);
  }

  function forget(): void {
    plucks = [];
    remember(key, plucks);
    answer = null;
  }

  const simulated = $derived(
    means === "gauge"
      ? setup.instruments.strain_gauge === "simulated" && "strain_gauge"
      : means === "push" && setup.instruments.push_scale === "simulated" && "push_scale",
  );

  async function instrument(kind: string, zero: boolean): Promise<void> {
    try {
      if (zero) {
        const done = await ask(client.POST("/api/instruments/zero", { body: { kind } }));
        notice.say(`${done.instrument}: zeroed on the slack band.`);
        return;
      }
      const params = { path: { setup_id: setup.id } };
      const body = { kind, step: "tension", reading: means };
      const got = await ask(client.POST("/api/setups/{setup_id}/read", { params, body }));
      value = got.value;
      await read([got.value]);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<section aria-label="Measure the tension">
  <div class="means" role="group" aria-label="By which means">
    {#each choicesOf<Means>("means") as m (m.key)}
      <button
        type="button"
        aria-pressed={m.key === means}
        onclick={() => {
          card.picked = m.key;
          value = null;
          answer = null;
          fault = "";
        }}>{m.name}</button
      >
    {/each}
  </div>
  <div class="read">
    {#if means === "pluck"}
      <Listen {setup} onheard={heard} simulated={setup.instruments.microphone === "simulated"} />
      {#if plucks.length > 0}
        <p>
          Plucks: <span class="mono">{plucks.map((p) => significant(p, 4)).join(", ")} Hz</span>
          <Action onclick={forget}>Forget them</Action>
        </p>
      {/if}
    {/if}
    <div class="line">
      <QuantityField
        label={shown?.label ?? ""}
        kind={shown?.kind ?? "plain"}
        {value}
        error={fault}
        help={means === "scale" && tension.scale
          ? `for the target it stands at ${significant(tension.scale.reading, 3)}${tension.scale.warning ? `. ${tension.scale.warning}` : ""}`
          : ""}
        onvalue={(v) => (value = v)}
      />
      {#if means === "push"}
        <QuantityField
          label="How far it bent aside"
          kind="length"
          value={deflection ?? tension.side_push?.deflection_mm ?? null}
          onvalue={(v) => (deflection = v)}
        />
      {/if}
      <Action
        disabled={value === null}
        onclick={() => {
          if (value !== null) void (means === "pluck" ? heard(value) : read([value]));
        }}>What stress is it?</Action
      >
      {#if simulated}
        <Action onclick={() => void instrument(simulated, true)}>Zero it</Action>
        <Action onclick={() => void instrument(simulated, false)}>Read it (simulated)</Action>
      {/if}
    </div>
  </div>
  {#if answer}
    <div class="answer" aria-live="polite">
      <p class="stress">
        <strong class="mono">{shop.say(answer.reading.stress_MPa, "stress")}</strong>
        <span class="soft"
          >{shop.number(answer.least_MPa, "stress")} to {shop.say(answer.most_MPa, "stress")}, nine
          times in ten</span
        >
      </p>
      <p data-verdict={answer.verdict}><strong>{shop.words(answer.words)}</strong></p>
      {#if answer.agreement}<p>{shop.words(answer.agreement)}</p>{/if}
      <p class="soft">
        Target {shop.say(answer.target_MPa, "stress")}; at the wheel {shop.say(
          answer.reading.wheel_force_N,
          "force",
        )}{answer.reading.frame_share === null
          ? ""
          : `, ${percent(answer.reading.frame_share)} of the frame’s limit`}{answer.plucks &&
        answer.plucks.count > 1
          ? `; median of ${answer.plucks.count} plucks, spread ± ${percent(answer.plucks.spread_share)}`
          : ""}.
      </p>
      {#each answer.reading.warnings as warning (warning)}
        <p class="warn">{shop.words(warning)}</p>
      {/each}
    </div>
  {/if}
  <details>
    <summary>The same tension in every form</summary>
    <TensionForms card={tension} />
    <p><a href="#/shop/saws/{setup.saw_id}/stand">Calibrate this saw’s own scale</a></p>
  </details>
</section>

<style>
  section {
    padding-top: var(--s3);
  }
  .means {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
  }
  .means button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    border: var(--rule) solid var(--hairline);
  }
  .means button[aria-pressed="true"] {
    border-color: var(--jade);
    background: var(--jade-pale);
    font-weight: 650;
  }
  .read {
    padding-top: var(--s3);
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: end;
  }
  .answer {
    padding: var(--s3) 0;
  }
  .stress .mono {
    font-size: var(--figure);
  }
  .warn {
    color: var(--vermilion);
    font-weight: 650;
  }
  summary {
    text-decoration: underline dotted;
    text-underline-offset: 0.3em;
  }
</style>
