<script lang="ts">
  import { onDestroy } from "svelte";

  import { Problem } from "../../api/client";
  import type { Rates, RatesFile, ShopEdit } from "../../api/schema";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { day, duration, type Kind, type Units, type Said } from "../../lib/units";
  import { remember } from "../../lib/storage";
  import Action from "../../parts/Action.svelte";
  import SettingUpForm from "./SettingUpForm.svelte";
  import Choices from "../../parts/fields/Choices.svelte";
  import QuantityField from "../../parts/fields/QuantityField.svelte";

  interface RateLine {
    readonly key: keyof Rates;
    readonly label: string;
    readonly help: string;
    readonly kind?: Kind;
  }
  const RATES: readonly RateLine[] = [
    { key: "hour", label: "An hour of work", help: "What an hour at the saw costs the shop." },
    { key: "timber_m3", label: "Timber, per m³", help: "Kerf is paid at this price." },
    {
      key: "change_min",
      label: "Changing a band, minutes",
      help: "Off, on, tracked, tensioned, guided.",
    },
    {
      key: "price_per_m_base",
      label: "Band price per metre, to start",
      help: "Usual price: this, plus the next line for each mm of width, times the steel’s relative price.",
    },
    { key: "price_per_m_per_mm", label: "… and per mm of width", help: "" },
    {
      key: "price_factor",
      label: "Your prices against those",
      help: "1.2 if your supplier is a fifth dearer.",
    },
    { key: "power_kWh", label: "Power, per kWh", help: "0 leaves it out." },
    {
      key: "hand_feed_max_m_min",
      label: "Fastest feed by hand",
      help: "No one keeps more up.",
      kind: "feed",
    },
    { key: "plane_min_m2", label: "Planing, minutes per m²", help: "From rough to planed." },
    { key: "sand_min_m2", label: "Sanding, minutes per m²", help: "From planed to sanded." },
    { key: "show_min_m2", label: "Show face, minutes per m²", help: "From sanded to show." },
    {
      key: "gullet_share_of_width",
      label: "Deepest gullet, share of the width",
      help: "Deeper ones leave too little body.",
    },
    { key: "comfortable_factor", label: "Comfortable radius, times the tightest", help: "" },
    { key: "comfortable_factor_hard", label: "… in green or deep stock", help: "" },
    {
      key: "teeth_missing_allowed",
      label: "Teeth a band may lack, 0 or 1",
      help: "A band with more lost stays off the saw until mended.",
    },
    { key: "dullness_show", label: "Dullest edge for show faces", help: "0 keen, 1 at its limit." },
    { key: "dullness_sand", label: "… ready to sand", help: "" },
    { key: "dullness_plane", label: "… to be planed", help: "" },
    { key: "dullness_rough", label: "… left rough", help: "" },
  ];
  let faults = $state<Record<string, Said>>({});

  type Changed = Omit<ShopEdit, "version">;
  async function save(changed: Changed): Promise<void> {
    try {
      await shop.save(changed);
      faults = {};
      notice.say("Saved.");
    } catch (problem) {
      const known = problem instanceof Problem ? problem : null;
      faults = Object.fromEntries((known?.errors ?? []).map((f) => [f.path, f.message]));
      notice.fail(problem);
    }
  }

  const SETTLE_MS = 700;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let unsaved: (() => Changed) | null = null;

  /** Saves once typing has stopped, or the page is left. */
  function saveSoon(changed: () => Changed): void {
    clearTimeout(waiting);
    unsaved = changed;
    waiting = setTimeout(saveNow, SETTLE_MS);
  }

  function saveNow(): void {
    clearTimeout(waiting);
    if (unsaved) void save(unsaved());
    unsaved = null;
  }
  onDestroy(saveNow);

  let typedRates: Partial<Rates> = {};
  function rate(key: keyof Rates, value: number | null): void {
    if (value === null || !shop.settings) return;
    typedRates = { ...typedRates, [key]: value };
    saveSoon(() => ({ rates: { ...shop.settings?.rates, ...typedRates } as RatesFile }));
  }

  function rule(key: string, choice: string): void {
    if (shop.settings) void save({ rules: { ...shop.settings.rules, [key]: choice } });
  }

  function units(choice: Units): void {
    shop.units = choice;
    remember("units", choice);
    void save({ units: choice });
  }
</script>

<header class="top">
  <h1>Shop</h1>
  <Action href="#/shop/materials">Materials</Action>
  <Action href="#/changes">Changes</Action>
</header>
{#if shop.settings && shop.settings.clock_behind_s > 0}
  <p role="alert" class="clock">
    This machine’s clock is {duration(shop.settings.clock_behind_s)} behind the shop’s latest record.
    Times go on from that record until it is set right.
  </p>
{/if}
{#if shop.settings && shop.reference}
  <section>
    <div class="head">
      <h2>Saws</h2>
      <Action main href="#/shop/saws/new">Add a saw</Action>
    </div>
    <ul>
      {#each shop.saws as saw (saw.id)}
        <li>
          <a href="#/shop/saws/{saw.id}">
            <strong>{saw.saw.name}</strong>
            <span class="soft">
              {saw.saw.orientation}, wheels {saw.saw.wheel_diameters_mm
                .map((d) => shop.number(d, "length"))
                .join(" + ")}
              {shop.unit("length")}, bands {saw.saw.band_length_mm
                .map((d) => shop.number(d, "length"))
                .join(" to ")} long
            </span>
            <span>
              {#if saw.mounted_label}<span class="mono">{saw.mounted_label}</span>
                {saw.tension_state === "on" ? "under tension" : "slack"}{saw.tension_since
                  ? ` since ${day(saw.tension_since)}`
                  : ""}{:else}no band on it{/if}
            </span>
          </a>
          <a class="stands" href="#/shop/saws/{saw.id}/stand">as it stands</a>
        </li>
      {:else}
        <li class="soft">No saw yet. One is enough to start.</li>
      {/each}
    </ul>
  </section>
  <div class="two">
    <section>
      <h2>House rules</h2>
      <p class="soft">
        Where experienced people differ. Each result names the rule it leaned on; a job may override
        it.
      </p>
      {#each shop.reference.rules as r (r.key)}
        <div class="rule">
          <label for="rule-{r.key}">{r.title}</label>
          <select
            id="rule-{r.key}"
            value={shop.settings.rules[r.key]}
            onchange={(e) => rule(r.key, e.currentTarget.value)}
          >
            {#each r.choices as choice, i (choice)}<option value={choice}
                >{shop.words(r.choice_names[i] ?? "")}{choice === r.default
                  ? " (usual)"
                  : ""}</option
              >{/each}
          </select>
          <p class="soft">{shop.words(r.why)}</p>
        </div>
      {/each}
      <QuantityField
        label="Guard above the work"
        kind="length"
        usual="guard_gap_mm"
        value={shop.settings.guard_gap_mm}
        error={faults.guard_gap_mm ?? ""}
        help="As near as the work lets it; more asks for a reason."
        required
        onvalue={(v) => {
          if (v !== null) saveSoon(() => ({ guard_gap_mm: v }));
        }}
      />
    </section>
    <section>
      <h2>Setting up</h2>
      <SettingUpForm />
      <h2>This shop</h2>
      <div class="fields">
        <label class="text"
          >Name<input
            value={shop.settings.name}
            onchange={(e) => void save({ name: e.currentTarget.value })}
          /></label
        >
        <label class="text"
          >Currency<input
            value={shop.settings.currency}
            onchange={(e) => void save({ currency: e.currentTarget.value })}
          /></label
        >
        <label class="text"
          >People, one a line<textarea
            rows="4"
            value={shop.settings.people.join("\n")}
            onchange={(e) =>
              void save({
                people: e.currentTarget.value
                  .split("\n")
                  .map((p) => p.trim())
                  .filter(Boolean),
              })}></textarea></label
        >
        <Choices
          legend="Units"
          chosen={shop.settings.units}
          options={[
            { key: "metric", name: "mm, m/min, MPa" },
            { key: "inch", name: "inches, ft/min, psi" },
          ]}
          onchoose={units}
        />
        <QuantityField
          label="Length of your strain gauge"
          kind="length"
          value={shop.settings.gauge_length_mm}
          error={faults.gauge_length_mm ?? ""}
          help="Between its jaws."
          required
          onvalue={(v) => {
            if (v !== null) saveSoon(() => ({ gauge_length_mm: v }));
          }}
        />
      </div>
      <h2>Prices and rates</h2>
      <div class="fields">
        {#each RATES as line (line.key)}
          <QuantityField
            label={line.label}
            kind={line.kind ?? "plain"}
            value={shop.settings.rates[line.key] ?? null}
            error={faults[`rates.${line.key}`] ?? ""}
            help={line.help}
            required
            onvalue={(v) => rate(line.key, v)}
          />
        {/each}
      </div>
    </section>
  </div>
{/if}

<style>
  .clock {
    color: var(--vermilion);
    font-weight: 600;
  }
  section {
    padding-top: var(--s4);
  }
  .top,
  .head {
    display: flex;
    gap: var(--s5);
    align-items: center;
    padding-bottom: var(--s2);
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: var(--s4);
    align-items: center;
    border-top: var(--hair) solid var(--hairline);
  }
  li .stands {
    display: inline-flex;
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  li a {
    display: grid;
    grid-template-columns: 14rem 1.6fr 1fr;
    gap: var(--s3);
    align-items: center;
    min-height: 3.25rem;
    color: inherit;
    text-decoration: none;
  }
  li a:hover strong {
    text-decoration: underline;
  }
  .two {
    display: grid;
    grid-template-columns: 1.1fr 1fr;
    gap: var(--s7);
    align-items: start;
  }
  .rule {
    display: grid;
    grid-template-columns: 1fr 1.2fr;
    gap: 0 var(--s3);
    align-items: center;
    padding: var(--s2) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .rule label {
    font-weight: 600;
  }
  .rule p {
    grid-column: 1 / -1;
  }
  select,
  .text input,
  textarea {
    min-height: var(--touch);
    width: 100%;
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
    font-weight: 400;
  }
  .text {
    display: grid;
    font-weight: 600;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
    gap: var(--s4);
    padding: var(--s3) 0 var(--s5);
  }
  @media (max-width: 900px) {
    .two,
    li a,
    .rule {
      grid-template-columns: 1fr;
      gap: var(--s1);
    }
  }
</style>
