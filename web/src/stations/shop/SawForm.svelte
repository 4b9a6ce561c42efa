<script lang="ts">
  import { onDestroy } from "svelte";
  import { push } from "svelte-spa-router";

  import { ask, client, Problem } from "../../api/client";
  import type { SawEdit, SawInput } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { ticket } from "../../lib/ticket.svelte";
  import { readNumber, type Said } from "../../lib/units";
  import { Edit } from "../../lib/edit.svelte";
  import EditState from "../../parts/EditState.svelte";
  import Action from "../../parts/Action.svelte";
  import Choices from "../../parts/fields/Choices.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import { assumedName, SAW_FIELDS, valueOf, withValue, type SawField } from "./sawFields";

  const { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id) || null);

  function start(): SawInput {
    const known = shop.saw(Number(params?.id) || null);
    const figures = known?.saw ?? shop.reference?.starting_saw;
    return { ...(figures as SawInput), assumed: known?.assumed ?? [], note: known?.note ?? "" };
  }
  /** The edit of the saw that the page was opened for. */
  function begun(): Edit<SawInput> {
    const known = shop.saw(Number(params?.id) || null);
    const place = known
      ? { key: `saw.${known.id}`, title: known.saw.name ?? "Saw", href: `#/shop/saws/${known.id}` }
      : { key: "saw.new", title: "A new saw", href: "#/shop/saws/new" };
    return new Edit(place, start(), known?.version ?? 0);
  }
  const edit = begun();
  onDestroy(() => edit.left());
  const saw = $derived(edit.draft);
  let faults = $state<Record<string, Said>>({});
  const assumed = $derived(saw.assumed ?? []);
  const existing = $derived(shop.saw(id));

  function unknownOf(field: SawField) {
    const name = assumedName(field);
    const taken = shop.reference?.assumed[name];
    if (!taken) return undefined;
    const { value, words } = taken;
    return {
      words: shop.words(words),
      chosen: assumed.includes(name),
      onchoose: (unknown: boolean) => {
        const others = assumed.filter((a) => a !== name);
        edit.set({
          ...(unknown ? withValue(saw, field, value) : saw),
          assumed: unknown ? [...others, name] : others,
        });
      },
    };
  }

  function faultOf(field: SawField): Said {
    return faults[assumedName(field)] ?? (field.at === undefined ? "" : (faults[field.key] ?? ""));
  }

  function speeds(text: string): void {
    const read = text.split(/[;\s]+/).map(readNumber);
    const list = read.filter((n): n is number => n !== null);
    edit.set({ ...saw, drive: { kind: "fixed", speeds_m_s: list } });
  }

  function inverter(key: string, value: number | null): void {
    edit.set({ ...saw, drive: { ...saw.drive, kind: "inverter", [key]: value } });
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      const saved = await edit.save((changes) => {
        if (!id) return ask(client.POST("/api/saws", { body: saw }));
        const params = { path: { saw_id: id } };
        return ask(client.PATCH("/api/saws/{saw_id}", { params, body: changes as SawEdit }));
      });
      if (!saved) return;
      await shop.loadSaws();
      if (ticket.draft.saw_id === null) ticket.begin(saved.id);
      notice.say(`${saw.name} is saved.`);
      await push(id ? "/shop" : "/rack");
    } catch (problem) {
      const known = problem instanceof Problem ? problem : null;
      faults = Object.fromEntries((known?.errors ?? []).map((f) => [f.path, f.message]));
      notice.fail(problem);
    }
  }

  async function remove(): Promise<void> {
    if (!id) return;
    const { change_id } = await ask(
      client.DELETE("/api/saws/{saw_id}", { params: { path: { saw_id: id } } }),
    );
    await shop.loadSaws();
    if (ticket.draft.saw_id === id) ticket.change({ saw_id: shop.saws[0]?.id ?? null });
    await push("/shop");
    notice.canUndo(`${saw.name} is deleted.`, change_id, () => shop.loadSaws());
  }

  async function tension(state: "on" | "slack"): Promise<void> {
    if (!id) return;
    try {
      await ask(
        client.POST("/api/saws/{saw_id}/tension", {
          params: { path: { saw_id: id } },
          body: { state },
        }),
      );
      await shop.loadSaws();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  async function takeOff(): Promise<void> {
    if (!id) return;
    await ask(
      client.POST("/api/saws/{saw_id}/mount", {
        params: { path: { saw_id: id } },
        body: { band_id: null },
      }),
    );
    await shop.loadSaws();
  }
</script>

<form onsubmit={(e) => void save(e)}>
  <EditState {edit} />
  <h1>{id ? saw.name : "A saw"}</h1>
  {#if existing}
    <p class="state">
      {#if existing.mounted_label}
        <strong class="mono">{existing.mounted_label}</strong> is on it,
        <strong
          >{existing.tension_state === "on"
            ? "under tension"
            : existing.tension_state === "slack"
              ? "slack"
              : "tension not recorded"}</strong
        >.
        {#if existing.tension_state === "on"}<Action onclick={() => void tension("slack")}
            >Slackened now</Action
          >
        {:else}<Action onclick={() => void tension("on")}>Tensioned now</Action>{/if}
        <Action onclick={() => void takeOff()}>Band taken off</Action>
      {:else}No band is on it.{/if}
    </p>
  {/if}
  <div class="fields">
    <label class="text">
      Name
      <input
        value={saw.name}
        aria-describedby="saw-name-error"
        oninput={(e) => edit.set({ ...saw, name: e.currentTarget.value })}
      />
      <span id="saw-name-error" class="error">{shop.words(faults.name ?? "")}</span>
    </label>
    {#each SAW_FIELDS as field (assumedName(field))}
      <QuantityField
        label={field.label}
        kind={field.kind}
        usual={field.usual}
        help={field.help}
        value={valueOf(saw, field)}
        unknown={unknownOf(field)}
        error={faultOf(field)}
        onvalue={(v) => edit.set(withValue(saw, field, v))}
      />
    {/each}
  </div>
  <div class="choices">
    <Choices
      legend="Frame"
      chosen={saw.orientation}
      options={[
        { key: "vertical", name: "vertical" },
        { key: "horizontal", name: "horizontal" },
      ]}
      onchoose={(orientation) => edit.set({ ...saw, orientation })}
    />
    <Choices
      legend="Tyres"
      chosen={saw.tyre}
      options={[
        { key: "crowned", name: "crowned" },
        { key: "flat", name: "flat" },
        { key: "none", name: "none, bare metal" },
        { key: "worn", name: "worn or rutted" },
      ]}
      onchoose={(tyre) => edit.set({ ...saw, tyre })}
    />
    <Choices
      legend="Guides"
      chosen={saw.guides}
      options={[
        { key: "rolling", name: "rolling" },
        { key: "ceramic", name: "ceramic" },
        { key: "steel_block", name: "steel blocks" },
        { key: "soft_block", name: "soft blocks" },
        { key: "thrust_only", name: "thrust only" },
        { key: "none", name: "none" },
      ]}
      onchoose={(guides) => edit.set({ ...saw, guides })}
    />
    <Choices
      legend="Feed"
      chosen={saw.feed ?? "hand"}
      options={[
        { key: "hand", name: "by hand" },
        { key: "power", name: "power feed" },
        { key: "table", name: "moving table" },
        { key: "carriage", name: "carriage" },
      ]}
      onchoose={(feed) => edit.set({ ...saw, feed })}
    />
    <Choices
      legend="Tension held by"
      chosen={saw.tensioner ?? "spring"}
      options={[
        { key: "spring", name: "spring" },
        { key: "weight", name: "weight" },
        { key: "air", name: "air cylinder" },
        { key: "fixed", name: "screw, no spring" },
      ]}
      onchoose={(tensioner) => edit.set({ ...saw, tensioner })}
    />
    <div>
      <Choices
        legend="Drive"
        chosen={saw.drive.kind}
        options={[
          { key: "fixed", name: "one speed or steps" },
          { key: "inverter", name: "inverter" },
        ]}
        onchoose={(kind) =>
          edit.set({
            ...saw,
            drive:
              kind === "fixed"
                ? { kind, speeds_m_s: [14] }
                : { kind, base_hz: 50, min_hz: 15, max_hz: 60, base_speed_m_s: 15 },
          })}
      />
      {#if saw.drive.kind === "fixed"}
        <label class="text">
          Band speeds, m/s
          <input
            class="mono"
            value={(saw.drive.speeds_m_s ?? []).join(" ")}
            onchange={(e) => speeds(e.currentTarget.value)}
          />
          <span class="soft"
            >One for each step, with a space between: 7 14.5. Wheel turns a minute × circumference /
            60.</span
          >
          <span class="error">{shop.words(faults.drive ?? faults["drive.speeds_m_s"] ?? "")}</span>
        </label>
      {:else}
        <QuantityField
          label="Base frequency, Hz"
          kind="plain"
          value={saw.drive.base_hz ?? null}
          error={faults["drive.base_hz"] ?? ""}
          onvalue={(v) => inverter("base_hz", v)}
        />
        <QuantityField
          label="Slowest, Hz"
          kind="plain"
          value={saw.drive.min_hz ?? null}
          error={faults["drive.min_hz"] ?? ""}
          onvalue={(v) => inverter("min_hz", v)}
        />
        <QuantityField
          label="Fastest, Hz"
          kind="plain"
          value={saw.drive.max_hz ?? null}
          error={faults["drive.max_hz"] ?? ""}
          onvalue={(v) => inverter("max_hz", v)}
        />
        <QuantityField
          label="Band speed at base frequency"
          kind="speed"
          usual="speed_m_s"
          value={saw.drive.base_speed_m_s ?? null}
          error={faults["drive.base_speed_m_s"] ?? faults.drive ?? ""}
          onvalue={(v) => inverter("base_speed_m_s", v)}
        />
      {/if}
    </div>
  </div>
  {#each ["", "band_length_mm", "band_width_mm"] as key (key)}{#if faults[key]}<p
        class="error"
        role="alert"
      >
        {shop.words(faults[key] ?? "")}
      </p>{/if}{/each}
  <div class="actions">
    <Action main type="submit">Save saw</Action>
    <Action href="#/shop" onclick={() => edit.discard()}>Leave</Action>
    {#if id}<Action onclick={() => void remove()}>Delete</Action>{/if}
  </div>
</form>

<style>
  .fields,
  .choices {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(17rem, 1fr));
    gap: var(--s5) var(--s5);
    padding: var(--s4) 0;
    align-items: start;
  }
  .choices {
    border-top: var(--rule) solid var(--ink);
  }
  .text {
    display: grid;
    gap: var(--s1);
    font-weight: 600;
    padding-top: var(--s2);
  }
  .text input {
    min-height: var(--touch);
    width: 100%;
    font-size: var(--text-large);
    font-weight: 400;
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
  }
  .text .soft {
    font-weight: 400;
  }
  .error {
    color: var(--vermilion);
    font-weight: 600;
  }
  .actions,
  .state {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
  }
</style>
