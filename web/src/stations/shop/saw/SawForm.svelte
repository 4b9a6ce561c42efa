<script lang="ts">
  import { called, choicesOf, fieldsOf } from "../../../lib/forms";
  import { onDestroy } from "svelte";
  import { push } from "svelte-spa-router";

  import { ask, client, Problem } from "../../../api/client";
  import type { KindLine, SawEdit, SawInput, FormField } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { currentJob } from "../../../lib/currentJob.svelte";
  import type { Said } from "../../../lib/figures/units";
  import { Edit } from "../../../lib/edit.svelte";
  import { toFirstFault } from "../../../lib/faults";
  import EditState from "../../../parts/EditState.svelte";
  import Action from "../../../parts/Action.svelte";
  import Choices from "../../../parts/fields/Choices.svelte";
  import Who from "../../../parts/fields/Who.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import SawDrive from "./SawDrive.svelte";
  import { assumedName, valueOf, withValue, withWheel } from "./sawFields";
  import SawKinds from "./SawKinds.svelte";
  import PutOn from "../../../parts/PutOn.svelte";
  import Fold from "../../../parts/Fold.svelte";
  import PlatePhoto from "./PlatePhoto.svelte";
  import { blankSaw, confirmed, isAssumed, sawOfKind } from "./startingSaw";
  import WorkOut from "./WorkOut.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id) || null);

  function start(): SawInput {
    const known = shop.saw(Number(params?.id) || null);
    const [kind] = shop.reference?.saw_kinds ?? [];
    if (!known && kind) return blankSaw(kind, "");
    return {
      ...(known?.saw as SawInput),
      assumed: known?.assumed ?? [],
      note: known?.note ?? "",
      considered: known?.considered ?? false,
    };
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
  let chosen = $state("");
  let details = $state(false);
  /** A name that somebody typed, and no kind gave. */
  const named = $derived(
    saw.name !== "" && !(shop.reference?.saw_kinds ?? []).some((k) => k.name === saw.name),
  );
  const begunTyping = $derived(id !== null || chosen !== "" || edit.changed);
  const CHOSEN = ["orientation", "tyre", "guides", "feed", "tensioner"] as const;
  const existing = $derived(shop.saw(id));

  /** Nobody knows the figure, and what is taken for it is the cautious one. */
  function unknown(name: string): boolean {
    const taken = shop.reference?.assumed[name];
    const field = fieldsOf("saw").find((f) => assumedName(f) === name);
    return !!taken && !!field && isAssumed(saw, name) && valueOf(saw, field) === taken.value;
  }

  function unknownOf(field: FormField) {
    const name = assumedName(field);
    const taken = shop.reference?.assumed[name];
    if (!taken) return undefined;
    const { value, words } = taken;
    return {
      words: shop.words(words),
      chosen: unknown(name),
      onchoose: (chosen: boolean) => {
        const known = confirmed(saw, name);
        edit.set(
          chosen
            ? { ...withValue(known, field, value), assumed: [...(known.assumed ?? []), name] }
            : known,
        );
      },
    };
  }

  function faultOf(field: FormField): Said {
    return faults[assumedName(field)] ?? (field.at === undefined ? "" : (faults[field.key] ?? ""));
  }

  /** The tap that says a figure of its kind is so; none where it is known, or nobody knows it. */
  function confirmOf(name: string): (() => void) | undefined {
    if (!isAssumed(saw, name) || unknown(name)) return undefined;
    return () => edit.set(confirmed(saw, name));
  }

  function speed(value: number): void {
    const speeds = (saw.drive.speeds_m_s ?? []) as (number | null)[];
    const drive = { kind: "fixed" as const, speeds_m_s: [value] };
    if (saw.drive.kind === "inverter") {
      edit.set(confirmed({ ...saw, drive: { ...saw.drive, base_speed_m_s: value } }, "drive"));
    } else if (speeds.length > 1) {
      const free = speeds.indexOf(null);
      const list = free < 0 ? [...speeds, value] : speeds.with(free, value);
      edit.set(confirmed({ ...saw, drive: { ...drive, speeds_m_s: list as number[] } }, "drive"));
    } else edit.set(confirmed({ ...saw, drive }, "drive"));
  }

  function length({ low, high }: { low: number; high: number }): void {
    const taken = { ...saw, band_length_mm: [low, high].map(Math.round) };
    edit.set(confirmed(confirmed(taken, "band_length_mm.0"), "band_length_mm.1"));
  }

  function take(kind: KindLine): void {
    chosen = kind.key;
    edit.set(sawOfKind(kind, named ? saw.name : ""));
  }

  function blank(): void {
    const [kind] = shop.reference?.saw_kinds ?? [];
    if (!kind) return;
    chosen = "blank";
    details = true;
    edit.set(blankSaw(kind, named ? saw.name : ""));
  }

  function typed(field: FormField, value: number | null): void {
    const first = field.key === "wheel_diameters_mm" && field.at === 0;
    const taken = first ? withWheel(saw, value) : withValue(saw, field, value);
    edit.set(confirmed(taken, assumedName(field)));
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const first = shop.saws.length === 0;
    try {
      const saved = await edit.save((changes) => {
        if (!id) return ask(client.POST("/api/saws", { body: saw }));
        const params = { path: { saw_id: id } };
        return ask(client.PATCH("/api/saws/{saw_id}", { params, body: changes as SawEdit }));
      });
      if (!saved) return;
      await shop.loadSaws();
      if (saved.considered) {
        notice.say(`${saw.name} is kept as considered.`);
        return await push(`/shop/saws/${saved.id}/considered`);
      }
      if (currentJob.draft.saw_id === null || first) currentJob.begin(saved.id);
      notice.say(`${saw.name} is saved.`);
      await push(id ? "/shop" : first ? "/start" : "/rack");
    } catch (problem) {
      const known = problem instanceof Problem ? problem : null;
      faults = Object.fromEntries((known?.errors ?? []).map((f) => [f.path, f.message]));
      void toFirstFault();
      notice.fail(problem);
    }
  }

  async function remove(): Promise<void> {
    if (!id) return;
    const { change_id } = await ask(
      client.DELETE("/api/saws/{saw_id}", { params: { path: { saw_id: id } } }),
    );
    await shop.loadSaws();
    if (currentJob.draft.saw_id === id) currentJob.change({ saw_id: shop.saws[0]?.id ?? null });
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

  let who = $state("");

  async function takeOff(): Promise<void> {
    if (!id) return;
    try {
      await ask(
        client.POST("/api/saws/{saw_id}/mount", {
          params: { path: { saw_id: id } },
          body: { band_id: null, who },
        }),
      );
      await shop.loadSaws();
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

{#snippet figures(first: boolean)}
  {#each fieldsOf("saw").filter((f) => f.first === first) as field (assumedName(field))}
    <QuantityField
      label={field.label}
      kind={field.kind}
      usual={field.quantity}
      help={field.help}
      term={field.term || undefined}
      value={valueOf(saw, field)}
      unknown={unknownOf(field)}
      onconfirm={confirmOf(assumedName(field))}
      error={faultOf(field)}
      onvalue={(v) => typed(field, v)}
    />
  {/each}
{/snippet}

{#if params?.id !== "new" && !existing}
  <h1>There is no such saw in this shop.</h1>
  <div class="actions"><Action main href="#/shop">Saws</Action></div>
{:else}
  <form onsubmit={(e) => void save(e)}>
    <EditState {edit} />
    <h1>{id ? saw.name : "A saw"}</h1>
    {#if existing?.considered}
      <p class="state">
        Considered, not owned. <Action href="#/shop/saws/{id}/considered"
          >Ask it with my jobs</Action
        >
      </p>
    {:else if existing}
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
          <Who label="By" value={who} onpick={(name) => (who = name)} />
        {:else}No band is on it.{/if}
      </p>
      <PutOn saw={existing} ondone={() => undefined} />
    {/if}
    {#if !id}<SawKinds {chosen} onchoose={take} onblank={blank} />{/if}
    {#if begunTyping}
      <div class="fields">
        <label class="text">
          Name
          <input
            value={saw.name}
            aria-describedby="saw-name-error"
            oninput={(e) => edit.set({ ...saw, name: e.currentTarget.value })}
          />
          <span id="saw-name-error" class="fault">{shop.words(faults.name ?? "")}</span>
        </label>
        {@render figures(true)}
      </div>
      <Fold
        name="Details"
        gist={(saw.assumed ?? []).length > 0
          ? `${saw.assumed?.length} figures assumed`
          : "band sizes, drive, guides, tyres"}
        bind:open={details}
      >
        <div class="fields">{@render figures(false)}</div>
        <PlatePhoto />
        <WorkOut {saw} onspeed={speed} onlength={length} />
        <div class="choices">
          {#each CHOSEN as key (key)}
            <Choices
              legend={called(key)}
              chosen={saw[key] ?? null}
              options={choicesOf(key)}
              onconfirm={confirmOf(key)}
              onchoose={(chosen) => edit.set(confirmed({ ...saw, [key]: chosen }, key))}
            />
          {/each}
          <Choices
            legend="Is it yours?"
            chosen={saw.considered ? "considered" : "owned"}
            options={choicesOf("standing")}
            onchoose={(key) => edit.set({ ...saw, considered: key === "considered" })}
          />
          <SawDrive
            drive={saw.drive}
            {faults}
            onconfirm={confirmOf("drive")}
            onchange={(drive) => edit.set(confirmed({ ...saw, drive }, "drive"))}
          />
        </div>
      </Fold>
      {#each ["", "band_length_mm", "band_width_mm"] as key (key)}{#if faults[key]}<p
            class="fault"
            role="alert"
          >
            {shop.words(faults[key] ?? "")}
          </p>{/if}{/each}
      <div class="actions">
        <Action main type="submit">Save saw</Action>
        <Action href="#/shop" onclick={() => edit.discard()}>Cancel</Action>
        {#if id}<Action onclick={() => void remove()}>Delete</Action>{/if}
      </div>
    {/if}
  </form>
{/if}

<style>
  .fields,
  .choices {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(17rem, 100%), 1fr));
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
    width: 100%;
    font-size: var(--text-large);
  }
  .actions,
  .state {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
  }
</style>
