<script lang="ts">
  import { ask, askPatiently, client, wordsOf } from "../../../api/client";
  import type { MeasuredSpeed, SetupAnswer, SpeedsAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { percent, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import type { SetupState } from "../setup.svelte";

  interface Props {
    card: SetupState;
    setup: SetupAnswer;
  }
  const { card, setup }: Props = $props();

  const saw_id = $derived(setup.saw_id);
  const target = $derived(setup.card.speed_m_s / (1 + setup.option.speed_off_target));
  let listed = $state<SpeedsAnswer | null>(null);
  let turns = $state<number | null>(null);
  let seconds = $state<number | null>(20);
  let rpm = $state<number | null>(null);
  let measured = $state<MeasuredSpeed | null>(null);
  let fault = $state<Said>("");

  async function load(): Promise<void> {
    const params = { path: { saw_id }, query: { target_m_s: target } };
    listed = await askPatiently(() => client.GET("/api/saws/{saw_id}/speeds", { params }));
  }
  // The saw and the cut name the speeds; listing them asks the server.
  $effect(() => {
    load().catch((p: unknown) => notice.fail(p));
  });

  async function measure(keep: boolean): Promise<void> {
    const params = { path: { saw_id } };
    const by = rpm === null ? { turns, seconds } : { wheel_rpm: rpm };
    const body = { nominal_m_s: setup.card.speed_m_s, keep, ...by };
    try {
      measured = await ask(client.POST("/api/saws/{saw_id}/speeds", { params, body }));
      fault = "";
      card.setFigure("speed", "left", "speed_m_s", Number(measured.speed_m_s.toPrecision(4)));
      if (measured.change_id !== null) {
        const change = measured.change_id;
        notice.canUndo("The saw’s speed is as measured.", change, load);
        await load();
        await shop.loadSaws();
      }
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }
</script>

<section aria-label="Speeds of this saw">
  {#if listed}
    <ul>
      {#each listed.settings as setting (setting.speed_m_s)}
        <li data-chosen={setting.chosen}>
          <span class="mono">{shop.say(setting.speed_m_s, "speed")}</span>
          {setting.name}
          <span class="soft"
            >{Math.abs(setting.off_share) < 0.005
              ? "on target"
              : `${percent(Math.abs(setting.off_share))} ${setting.off_share > 0 ? "over" : "under"} the ${shop.say(listed.target_m_s, "speed")} wanted`}</span
          >
          {#if setting.chosen}<strong>set this</strong>{/if}
        </li>
      {/each}
    </ul>
    {#if listed.pulleys?.needed}
      <p>
        No step is near. {shop.words(listed.pulleys.words)} would bring it; belts and guards isolated,
        the motor’s load by the maker’s service.
      </p>
    {/if}
  {/if}
  <div class="line">
    <QuantityField
      label="Wheel turns counted"
      kind="plain"
      value={turns}
      onvalue={(v) => (turns = v)}
    />
    <QuantityField
      label="… in seconds"
      kind="plain"
      value={seconds}
      onvalue={(v) => (seconds = v)}
    />
    <QuantityField
      label="or tachometer, wheel rpm"
      kind="plain"
      value={rpm}
      onvalue={(v) => (rpm = v)}
    />
    <Action
      disabled={rpm === null && (turns === null || seconds === null)}
      onclick={() => void measure(false)}>What speed is it?</Action
    >
  </div>
  {#if fault}<p class="fault" role="alert">{shop.words(fault)}</p>{/if}
  {#if measured}
    <p aria-live="polite">
      <strong>{shop.words(measured.words)}</strong>
      <span class="soft">± {shop.say(measured.uncertainty_m_s, "speed")}</span>
      {#if measured.change_id === null}
        <Action onclick={() => void measure(true)}>Correct the saw’s record</Action>
      {/if}
    </p>
  {/if}
</section>

<style>
  section {
    padding-top: var(--s3);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
    min-height: 2.25rem;
    border-bottom: var(--hair) solid var(--hairline);
    padding: 0 var(--s2);
  }
  li[data-chosen="true"] {
    background: var(--jade-pale);
  }
  li .mono {
    min-width: 6.5rem;
    font-weight: 700;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    padding-top: var(--s3);
  }
</style>
