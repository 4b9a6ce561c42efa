<script lang="ts">
  import { ask, askPatiently, client, Problem } from "../../../api/client";
  import type { SettingUp, SettingUpEdit } from "../../../api/schema";
  import { choicesOf } from "../../../lib/forms";
  import { notice } from "../../../lib/notice.svelte";
  import { SerialQueue } from "../../../lib/sending/serialQueue";
  import { shop } from "../../../lib/shop.svelte";

  let settings = $state<SettingUp | null>(null);
  type Reserve = NonNullable<SettingUpEdit["reserved"]>[number];

  async function load(): Promise<void> {
    settings = await askPatiently(() => client.GET("/api/setting-up"));
  }
  void load().catch((p: unknown) => notice.fail(p));

  const turns = new SerialQueue();

  function save(changed: Omit<SettingUpEdit, "version">): Promise<void> {
    return turns.take(() => send(changed));
  }

  async function send(changed: Omit<SettingUpEdit, "version">): Promise<void> {
    if (!settings) return;
    const body: SettingUpEdit = { version: settings.version, ...changed };
    try {
      settings = await ask(client.PATCH("/api/setting-up", { body }));
      if (shop.settings) shop.settings.version = settings.version;
      if (typeof settings.change_id === "number")
        notice.canUndo("Saved.", settings.change_id, load);
    } catch (problem) {
      notice.fail(problem);
      if (problem instanceof Problem && problem.current) await load();
    }
  }

  function reserve(key: Reserve, on: boolean): void {
    const now = (settings?.reserved ?? []) as Reserve[];
    void save({ reserved: on ? [...now, key] : now.filter((r) => r !== key) });
  }

  function hold(key: string, on: boolean): void {
    const now = settings?.holding ?? [];
    void save({ holding: on ? [...now, key] : now.filter((h) => h !== key) });
  }
</script>

{#if settings}
  {@const kept = settings}
  <fieldset>
    <legend>Reserved for authorised people</legend>
    {#each choicesOf<Reserve>("reserve") as r (r.key)}
      <label
        ><input
          type="checkbox"
          checked={kept.reserved.includes(r.key)}
          onchange={(e) => reserve(r.key, e.currentTarget.checked)}
        />
        {r.name}</label
      >
    {/each}
  </fieldset>
  <label class="text"
    >Authorised people, one a line<textarea
      rows="3"
      value={kept.authorised.join("\n")}
      onchange={(e) =>
        void save({
          authorised: e.currentTarget.value
            .split("\n")
            .map((n) => n.trim())
            .filter(Boolean),
        })}></textarea></label
  >
  <fieldset>
    <legend>What holds the work here</legend>
    {#each shop.reference?.holding ?? [] as h (h.key)}
      <label
        ><input
          type="checkbox"
          checked={kept.holding.includes(h.key)}
          onchange={(e) => hold(h.key, e.currentTarget.checked)}
        />
        {h.title.toLowerCase()}</label
      >
    {/each}
  </fieldset>
  <h3>Instruments</h3>
  <p class="soft">
    By hand: typed, or from a caliper that types. The simulated ones are stand-ins for trying out; a
    reading of theirs says so.
  </p>
  {#each Object.entries(kept.instruments) as [kind, chosen] (kind)}
    <div class="instrument">
      <label for="instrument-{kind}">{kind.replaceAll("_", " ")}</label>
      <select
        id="instrument-{kind}"
        value={chosen}
        onchange={(e) =>
          void save({
            instruments: {
              ...kept.instruments,
              [kind]: e.currentTarget.value,
            } as SettingUpEdit["instruments"],
          })}
      >
        {#each choicesOf("read_by") as way (way.key)}
          <option value={way.key}>{way.name}</option>
        {/each}
      </select>
    </div>
  {/each}
{/if}

<style>
  fieldset label,
  .instrument {
    display: flex;
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
  }
  legend,
  .text,
  h3 {
    font-weight: 600;
    font-size: var(--text);
  }
  input {
    width: 1.4rem;
    height: 1.4rem;
    accent-color: var(--jade);
  }
  .text {
    display: grid;
  }
  .instrument label {
    width: 9rem;
  }
</style>
