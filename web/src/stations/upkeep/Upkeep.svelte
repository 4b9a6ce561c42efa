<script lang="ts">
  import { called } from "../../lib/forms";
  import { asBytes } from "../../lib/bytes";
  import { ask, askPatiently, client, wordsOf } from "../../api/client";
  import type { Care, CommissioningCard, TaskLine } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { day, fixed, type Said } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";
  import Who from "../../parts/fields/Who.svelte";

  const { params }: { params?: { id?: string } } = $props();
  const saw_id = $derived(Number(params?.id));
  let care = $state<Care | null>(null);
  let who = $state("");
  let open = $state<string | null>(null);
  let wrong = $state("");
  let step = $state<{ key: string; note: string }>({ key: "", note: "" });
  let fault = $state<Said>("");
  const path = $derived({ saw_id });

  // The address names the saw.
  $effect(() => {
    if (saw_id > 0)
      askPatiently(() => client.GET("/api/saws/{saw_id}/upkeep", { params: { path } }))
        .then((found) => ([care, fault] = [found, ""]))
        .catch((problem: unknown) => (fault = wordsOf(problem)));
  });

  async function act(doing: Promise<Care>): Promise<void> {
    try {
      care = await doing;
      fault = "";
      wrong = "";
      step = { key: "", note: "" };
    } catch (problem) {
      fault = wordsOf(problem);
    }
  }

  function done(task: TaskLine, found: "right" | "wrong"): void {
    const body = { key: task.key, found, note: found === "wrong" ? wrong : "", who };
    void act(ask(client.POST("/api/saws/{saw_id}/upkeep", { params: { path }, body })));
  }

  function every(task: TaskLine, changed: { hours?: number | null; days?: number | null }): void {
    const own = { hours: task.hours, days: task.days, ...changed };
    const body = { intervals: { [task.key]: own } };
    void act(ask(client.POST("/api/saws/{saw_id}/upkeep/intervals", { params: { path }, body })));
  }

  const NEW_TASK = { title: "", do: "", look: "", hours: 100, days: 90, stops: false };
  let added = $state({ ...NEW_TASK });
  async function add(): Promise<void> {
    const call = client.POST("/api/saws/{saw_id}/upkeep/tasks", { params: { path }, body: added });
    await act(ask(call));
    if (!fault) added = { ...NEW_TASK };
  }
  function takeAway(number: number): void {
    const params = { path: { saw_id, number } };
    void act(ask(client.DELETE("/api/saws/{saw_id}/upkeep/tasks/{number}", { params })));
  }

  function accessory(key: string, state: "none" | "works" | "down"): void {
    const body = { key, state };
    void act(ask(client.POST("/api/saws/{saw_id}/accessory", { params: { path }, body })));
  }

  async function plate(file: File | undefined): Promise<void> {
    if (!file) return;
    const kept = client.POST("/api/saws/{saw_id}/photo", {
      params: { path },
      ...asBytes(file),
    });
    await act(
      ask(kept).then(() => ask(client.GET("/api/saws/{saw_id}/upkeep", { params: { path } }))),
    );
  }

  function begin(kind: "new" | "old"): void {
    void act(
      ask(client.POST("/api/saws/{saw_id}/commissioning", { params: { path }, body: { kind } })),
    );
  }

  function tick(card: CommissioningCard, key: string, found: "right" | "wrong"): void {
    const note = step.key === key ? step.note : "";
    const body = { key, found, note, who };
    const at = { path: { card_id: card.id } };
    void act(ask(client.POST("/api/commissioning/{card_id}", { params: at, body })));
  }

  function left(task: TaskLine): string {
    const { hours_left, days_left, by } = task.stands;
    if (hours_left === null || days_left === null)
      return task.stands.due === "due" ? called("due", "never_done") : "";
    return by === "hours"
      ? `${fixed(Math.abs(hours_left), 0)} h ${hours_left < 0 ? "over" : "left"}`
      : `${fixed(Math.abs(days_left), 0)} days ${days_left < 0 ? "over" : "left"}`;
  }
  const STATES = [
    ["none", "has none"],
    ["works", "works"],
    ["down", "is down"],
  ] as const;
</script>

{#if fault}<p role="alert" class="fault">{shop.words(fault)}</p>{/if}
{#if care}
  <h1>Upkeep of {care.saw}</h1>
  <p class="soft">
    {fixed(care.hours, 1)} hours cut, by its runs. Isolate before a door is opened; the manual wins where
    it says otherwise. <a href="#/shop/saws/{care.saw_id}/stand">As it stands</a>
  </p>
  <div class="form"><Who value={who} onpick={(name) => (who = name)} /></div>
  <ul>
    {#each care.tasks as task (task.key)}
      <li data-due={task.stands.due}>
        <button
          type="button"
          class="title"
          aria-expanded={open === task.key}
          onclick={() => (open = open === task.key ? null : task.key)}>{task.title}</button
        >
        <span><strong>{called("due", task.stands.due)}</strong> {left(task)}</span>
        <span class="soft"
          >{task.last_at
            ? `${day(task.last_at)}${task.last_who ? `, ${task.last_who}` : ""}${task.last_note ? `: ${task.last_note}` : ""}`
            : ""}</span
        >
        <Action onclick={() => done(task, "right")}>Done</Action>
        {#if open === task.key}
          <div class="more">
            <p>
              {task.do}
              {#if task.look}<span class="soft">Right when: {task.look}.</span>{/if}
            </p>
            <div class="form">
              <label>What is wrong<input bind:value={wrong} maxlength="380" /></label>
              <Action disabled={!wrong.trim()} onclick={() => done(task, "wrong")}
                >Found wrong{task.stops ? ": the saw stands" : ""}</Action
              >
              <QuantityField
                label="Every, hours run"
                kind="plain"
                value={task.hours}
                onvalue={(v) => every(task, { hours: v })}
              />
              <QuantityField
                label="or days"
                kind="plain"
                value={task.days}
                onvalue={(v) => every(task, { days: v })}
              />
              {#if task.made_here !== null}
                {@const number = task.made_here}
                <Action onclick={() => takeAway(number)}>Take this task away</Action>
              {/if}
            </div>
          </div>
        {/if}
      </li>
    {/each}
  </ul>
  <details>
    <summary>A task of your own</summary>
    <div class="form">
      <label>What it is called<input bind:value={added.title} maxlength="60" /></label>
      <label>What to do<input bind:value={added.do} maxlength="380" /></label>
      <label>Right when<input bind:value={added.look} maxlength="380" /></label>
      <QuantityField
        label="Every, hours run"
        kind="plain"
        value={added.hours}
        onvalue={(v) => (added.hours = v ?? NEW_TASK.hours)}
      />
      <QuantityField
        label="or days"
        kind="plain"
        value={added.days}
        onvalue={(v) => (added.days = v ?? NEW_TASK.days)}
      />
      <label class="check"
        ><input type="checkbox" bind:checked={added.stops} /> the saw does not run without it</label
      >
      <Action main disabled={!added.title.trim()} onclick={() => void add()}>Add it</Action>
    </div>
  </details>
  <h2>What spares its bands and people</h2>
  <ul>
    {#each care.accessories as a (a.key)}
      <li class="accessory">
        <span><strong>{a.title}</strong> <span class="soft">saves {a.saves}</span></span>
        <span role="group" aria-label={a.title}>
          {#each STATES as [key, name] (key)}
            <button
              type="button"
              aria-pressed={a.state === key}
              onclick={() => accessory(a.key, key)}>{name}</button
            >
          {/each}
        </span>
        {#if a.state === "down"}
          <span class="down"
            >{a.caution} Edges wear {fixed(a.wear, 2)} times as fast while it is down.</span
          >
        {/if}
      </li>
    {/each}
  </ul>
  <h2>Its plate</h2>
  {#if care.plate_photo_id !== null}
    <img src="/api/photos/{care.plate_photo_id}.jpg" alt="The plate of {care.saw}" />
  {/if}
  <label class="plate"
    >{care.plate_photo_id === null ? "A photograph of it" : "Another photograph"}<input
      type="file"
      accept="image/jpeg,image/png,image/webp"
      capture="environment"
      onchange={(e) => void plate(e.currentTarget.files?.[0])}
    /></label
  >
  <h2>Commissioning</h2>
  {#each care.commissioning as card (card.id)}
    <details open={card.finished_at === null}>
      <summary
        >{card.kind === "new" ? "A new saw" : "An old saw"}, begun {day(
          card.started_at,
        )}{card.finished_at
          ? `, done ${day(card.finished_at)}`
          : `: ${card.open} open, ${card.wrong} wrong`}</summary
      >
      <ul>
        {#each card.steps as s (s.key)}
          <li class="accessory" data-found={s.found}>
            <span>
              <strong>{s.title}</strong>{s.licensed ? " (by a licensed person, named)" : ""}
              <span class="soft">{s.do} Right when: {s.look}.</span>
              {#if s.found}<em>{s.found}{s.who ? `, ${s.who}` : ""}{s.note ? `: ${s.note}` : ""}</em
                >{/if}
            </span>
            {#if card.finished_at === null}
              <span class="form">
                <label
                  ><span class="unseen">Note on {s.title}</span><input
                    placeholder="note"
                    maxlength="400"
                    value={step.key === s.key ? step.note : ""}
                    oninput={(e) => (step = { key: s.key, note: e.currentTarget.value })}
                  /></label
                >
                <Action onclick={() => tick(card, s.key, "right")}>Right</Action>
                <Action onclick={() => tick(card, s.key, "wrong")}>Wrong</Action>
              </span>
            {/if}
          </li>
        {/each}
      </ul>
    </details>
  {/each}
  <div class="form">
    <Action onclick={() => begin("new")}>Commission it as new</Action>
    <Action onclick={() => begin("old")}>Bring an old one back</Action>
  </div>
{:else if !fault}
  <p class="soft">Reading its upkeep …</p>
{/if}

<style>
  h2 {
    padding-top: var(--s5);
  }
  li {
    display: grid;
    grid-template-columns: minmax(12rem, 1fr) 11rem 1.4fr auto;
    gap: 0 var(--s4);
    align-items: center;
    min-height: var(--touch);
    border-top: var(--hair) solid var(--hairline);
  }
  .accessory {
    display: flex;
    flex-wrap: wrap;
  }
  .accessory > :first-child {
    flex: 1 1 18rem;
  }
  .more {
    grid-column: 1 / -1;
    padding-bottom: var(--s3);
  }
  input {
    min-width: 12rem;
  }
  .check {
    display: flex;
    align-items: center;
    gap: var(--s2);
    min-height: var(--touch);
  }
  .check input {
    min-width: 0;
  }
  button {
    min-height: var(--touch);
    padding: 0 var(--s3);
    border-bottom: var(--rule) solid var(--hairline);
  }
  button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-bottom-color: var(--jade);
    font-weight: 650;
  }
  img {
    display: block;
    max-width: min(24rem, 100%);
  }
  .plate {
    max-width: 24rem;
  }
  .plate input {
    width: 100%;
    min-width: 0;
  }
  .title {
    padding: 0;
    text-align: left;
    font-weight: 600;
    border: 0;
    text-decoration: underline dotted;
    text-underline-offset: 0.25em;
  }
  [data-due="wrong"] strong,
  .fault,
  .down {
    color: var(--vermilion);
  }
  [data-due="due"] strong {
    color: var(--brass-text);
  }
  .down {
    flex: 1 1 100%;
    font-weight: 600;
  }
  @media (max-width: 56.25em) {
    li {
      grid-template-columns: 1fr auto;
      padding: var(--s2) 0;
    }
  }
</style>
