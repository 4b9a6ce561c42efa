<script lang="ts">
  import { ask, askPatiently, client, wordsOf } from "../../../api/client";
  import type { CoilInput, MadeHere, MakingLine } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { day, type Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";
  import Who from "../../../parts/fields/Who.svelte";
  import TypeFields from "../TypeFields.svelte";
  import { pitchOf, type TypeDraft } from "../types";
  import RackPages from "../RackPages.svelte";

  let made = $state<MadeHere | null>(null);
  let fault = $state<Said>("");
  let adding = $state(false);
  let draft = $state<TypeDraft>({
    width_mm: 19,
    thickness_mm: 0.81,
    tpi_lo: 3,
    tpi_hi: null,
    form: "hook",
    steel: "carbon_flexback",
    set_per_side_mm: null,
  });
  let coilLeft = $state<number | null>(30_000);
  let coilPrice = $state<number | null>(null);
  let begun = $state<{ coil: number; label: string; length_mm: number | null; procedure: string }>({
    coil: 0,
    label: "",
    length_mm: null,
    procedure: "",
  });
  let who = $state("");
  let why = $state("");

  async function load(): Promise<void> {
    made = await askPatiently(() => client.GET("/api/coils"));
  }
  void load().catch((p: unknown) => (fault = wordsOf(p)));

  /** Does one thing; its answer is all of it anew, or a fault in words. */
  async function act(doing: Promise<MadeHere>): Promise<boolean> {
    try {
      made = await doing;
      fault = "";
      return true;
    } catch (problem) {
      fault = wordsOf(problem);
      return false;
    }
  }

  async function addCoil(): Promise<void> {
    const type = { ...draft, ...pitchOf(draft) };
    const body = { ...type, left_mm: coilLeft, price_per_m: coilPrice } as CoilInput;
    if (await act(ask(client.POST("/api/coils", { body })))) adding = false;
  }

  async function removeCoil(coil_id: number): Promise<void> {
    const { change_id } = await ask(
      client.DELETE("/api/coils/{coil_id}", { params: { path: { coil_id } } }),
    );
    await load();
    notice.canUndo("The coil is gone.", change_id, load);
  }

  async function begin(): Promise<void> {
    if (begun.length_mm === null) return;
    const { label, length_mm, procedure } = begun;
    const params = { path: { coil_id: begun.coil } };
    const body = { label, length_mm, procedure, who };
    const doing = ask(client.POST("/api/coils/{coil_id}/make", { params, body }));
    if (await act(doing)) begun = { ...begun, coil: 0, label: "" };
  }

  const stepNow = (m: MakingLine) => m.steps.find((s) => !s.done);

  function step(m: MakingLine): void {
    const now = stepNow(m);
    if (!now) return;
    const params = { path: { making_id: m.id } };
    void act(
      ask(client.POST("/api/makings/{making_id}/step", { params, body: { key: now.key, who } })),
    );
  }

  function end(m: MakingLine, ok: boolean): void {
    const params = { path: { making_id: m.id } };
    const body = { made: ok, failed_at: ok ? "" : (stepNow(m)?.key ?? "check"), why, who };
    void act(ask(client.POST("/api/makings/{making_id}/end", { params, body })));
    why = "";
  }
</script>

<RackPages title="Bands made here" />
{#if fault}<p role="alert" class="fault">{shop.words(fault)}</p>{/if}
{#if made}
  {#each made.making.filter((m) => m.state === "open") as m (m.id)}
    {@const now = stepNow(m)}
    <section class="making" aria-label="Making {m.label}">
      <h2>
        <span class="mono">{m.label}</span>, {shop.say(m.length_mm, "length")}, by “{m.procedure}”
      </h2>
      <ol>
        {#each m.steps as s (s.key)}
          <li data-done={s.done} aria-current={s === now ? "step" : undefined}>
            <strong>{s.title}</strong>
            {#if s === now}
              <span>{s.do}</span>
              <span class="soft">Right when: {s.check}</span>
              {#if s.caution}<strong class="caution">{s.caution}</strong>{/if}
            {:else if s.done}<span class="soft">{s.who || "done"}</span>{/if}
          </li>
        {/each}
      </ol>
      <div class="form">
        <Who value={who} onpick={(name) => (who = name)} />
        {#if now}<Action main onclick={() => step(m)}>{now.title}: done</Action>
        {:else}<Action main onclick={() => end(m, true)}>Put it on the rack</Action>{/if}
        <label>What went wrong<input bind:value={why} maxlength="400" /></label>
        <Action disabled={!why.trim()} onclick={() => end(m, false)}
          >It failed{now ? ` at ${now.title.toLowerCase()}` : ""}</Action
        >
      </div>
    </section>
  {/each}
  <section aria-label="Coils">
    <h2>Coils</h2>
    <ul>
      {#each made.coils as c (c.id)}
        <li class="coil">
          <span><strong>{shop.typeName(c)}</strong> {c.place}</span>
          <span><strong class="mono">{shop.say(c.left_mm, "long")}</strong> left</span>
          <span class="soft"
            >{c.lengths.map((l) => `${l.bands} for ${l.saw}`).join(", ") || "no saw yet"}</span
          >
          <Action
            onclick={() =>
              (begun = { ...begun, coil: c.id, length_mm: c.lengths[0]?.length_mm ?? null })}
            >Make a band</Action
          >
          <Action onclick={() => void removeCoil(c.id)}>Delete</Action>
        </li>
        {#if begun.coil === c.id}
          <li class="form">
            <label>Label<input bind:value={begun.label} maxlength="40" /></label>
            <label
              >For<select
                onchange={(e) => (begun.length_mm = Number(e.currentTarget.value))}
                value={String(begun.length_mm)}
              >
                {#each c.lengths as l (l.saw_id)}<option value={String(l.length_mm)}>{l.saw}</option
                  >{/each}
              </select></label
            >
            <QuantityField
              label="Length, the tensioner mid-way"
              kind="length"
              value={begun.length_mm}
              onvalue={(v) => (begun.length_mm = v)}
            />
            <label
              >Procedure of the weld<input
                bind:value={begun.procedure}
                maxlength="80"
                placeholder="clamp 3, 4 pulses"
              /></label
            >
            <Action
              main
              disabled={!begun.label.trim() || !begun.procedure.trim() || begun.length_mm === null}
              onclick={() => void begin()}>Begin</Action
            >
          </li>
        {/if}
      {:else}
        <li>No coil stock here.</li>
      {/each}
    </ul>
    <Action onclick={() => (adding = !adding)}>Add a coil</Action>
    {#if adding}
      <div class="form">
        <TypeFields
          {draft}
          faults={{}}
          set={(field, value) => (draft = { ...draft, [field]: value })}
        />
        <QuantityField
          label="Left on it"
          kind="long"
          value={coilLeft}
          onvalue={(v) => (coilLeft = v)}
        />
        <QuantityField
          label="Price a metre"
          kind="plain"
          value={coilPrice}
          onvalue={(v) => (coilPrice = v)}
        />
        <Action main onclick={() => void addCoil()}>Keep the coil</Action>
      </div>
    {/if}
  </section>
  {#if made.procedures.length > 0}
    <section aria-label="Procedures">
      <h2>Procedures</h2>
      <ul>
        {#each made.procedures as p (p.procedure)}
          <li class="coil">
            <strong>{p.procedure}</strong><span>{p.words}</span>
            <span class="soft"
              >{Object.entries(p.at)
                .map(([key, n]) => `${n} at ${key}`)
                .join(", ")}</span
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if made.making.some((m) => m.state !== "open")}
    <section aria-label="Made and failed">
      <h2>Made and failed</h2>
      <ul>
        {#each made.making.filter((m) => m.state !== "open") as m (m.id)}
          <li class="coil">
            {#if m.band_id !== null}<a class="mono" href="#/rack/{m.band_id}">{m.label}</a>
            {:else}<span class="mono">{m.label}</span>{/if}
            <span>{m.state === "made" ? "made" : `failed at ${m.failed_at}: ${m.why}`}</span>
            <span class="soft"
              >{m.procedure}, {m.finished_at ? day(m.finished_at) : ""} {m.who}</span
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
{/if}

<style>
  section {
    padding-top: var(--s4);
  }
  .making {
    border-left: var(--s2) solid var(--jade);
    padding-left: var(--s4);
    margin-top: var(--s3);
  }
  ol li {
    display: grid;
    padding: var(--s1) 0;
    color: var(--ink-soft);
  }
  ol li[aria-current] {
    color: var(--ink);
  }
  .caution,
  .fault {
    color: var(--vermilion);
    font-weight: 600;
  }
  .coil {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    align-items: center;
    min-height: var(--touch);
    border-top: var(--hair) solid var(--hairline);
  }
  .coil > :first-child {
    flex: 1 1 14rem;
  }
  .form {
    padding: var(--s3) 0;
  }
  input,
  select {
    min-width: 10rem;
  }
</style>
