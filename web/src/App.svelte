<script lang="ts">
  import Router, { push, router } from "svelte-spa-router";
  import { wrap } from "svelte-spa-router/wrap";

  import { away } from "./lib/away.svelte";
  import { door } from "./lib/door.svelte";
  import { drafts } from "./lib/edit.svelte";
  import { notice } from "./lib/notice.svelte";
  import { outbox } from "./lib/outbox.svelte";
  import { shop } from "./lib/shop.svelte";
  import { ticket } from "./lib/ticket.svelte";
  import { day, time } from "./lib/units";
  import { backToShop, looksRound } from "./lib/yard";
  import { provide } from "./offline/provide";
  import Finder from "./parts/shell/Finder.svelte";
  import NoticeLine from "./parts/shell/NoticeLine.svelte";
  import Ribbon from "./parts/shell/Ribbon.svelte";
  import Shortcuts from "./parts/shell/Shortcuts.svelte";
  import Ticket from "./parts/shell/Ticket.svelte";
  import Waiting from "./stations/changes/Waiting.svelte";
  import Inspect from "./stations/inspect/Inspect.svelte";
  import Join from "./stations/join/Join.svelte";
  import Jobs from "./stations/plan/Jobs.svelte";
  import Plan from "./stations/plan/Plan.svelte";
  import BandPage from "./stations/rack/BandPage.svelte";
  import Rack from "./stations/rack/Rack.svelte";
  import Run from "./stations/run/Run.svelte";
  import SetUp from "./stations/setup/SetUp.svelte";
  import SawForm from "./stations/shop/SawForm.svelte";
  import Shop from "./stations/shop/Shop.svelte";
  import Start from "./stations/start/Start.svelte";
  import Stand from "./stations/shop/Stand.svelte";

  const STATIONS = [
    { key: "plan", name: "Plan" },
    { key: "setup", name: "Set up" },
    { key: "run", name: "Run" },
    { key: "inspect", name: "Inspect" },
    { key: "rack", name: "Rack" },
    { key: "shop", name: "Shop" },
  ] as const;
  // Loaded when opened: what is used at the saw comes with the page, this with a network.
  const later = (page: () => Promise<object>) => {
    const asked = () =>
      page().catch(() => {
        throw new Error("This page is loaded when it is first opened: try again with a network.");
      });
    return wrap({ asyncComponent: asked as Parameters<typeof wrap>[0]["asyncComponent"] });
  };
  const ROUTES = {
    "/": Plan,
    "/plan/:id?": Plan,
    "/jobs": Jobs,
    "/cutlist": later(() => import("./stations/stock/CutList.svelte")),
    "/joinery": later(() => import("./stations/stock/Joinery.svelte")),
    "/stock": later(() => import("./stations/stock/Stock.svelte")),
    "/stock/:id": later(() => import("./stations/stock/StockPage.svelte")),
    "/start": Start,
    "/rack/new": Rack,
    "/rack/list": later(() => import("./stations/rack/BringBands.svelte")),
    "/rack/radius": later(() => import("./stations/rack/RadiusCard.svelte")),
    "/rack/shopping": later(() => import("./stations/rack/Shopping.svelte")),
    "/rack/types": later(() => import("./stations/rack/Types.svelte")),
    "/shop/materials/:key?": later(() => import("./stations/shop/Materials.svelte")),
    "/setup/:id?": SetUp,
    "/run/:id?": Run,
    "/inspect/:id?": Inspect,
    "/rack": Rack,
    "/rack/:id": BandPage,
    "/changes/:noun?/:id?": later(() => import("./stations/changes/Changes.svelte")),
    "/waiting": Waiting,
    "/help/:key?": later(() => import("./stations/help/Help.svelte")),
    "/shop": Shop,
    "/shop/rules": later(() => import("./stations/shop/HouseRules.svelte")),
    "/shop/prices": later(() => import("./stations/shop/Prices.svelte")),
    "/shop/setting-up": later(() => import("./stations/shop/SettingUp.svelte")),
    "/shop/about": later(() => import("./stations/shop/About.svelte")),
    "/shop/network": later(() => import("./stations/shop/Network.svelte")),
    "/shop/keeping": later(() => import("./stations/shop/Keeping.svelte")),
    "/shop/saws/:id/stand": Stand,
    "/shop/saws/:id": SawForm,
    "*": Plan,
  };
  const KEYS = [
    { key: "/", does: "find anything" },
    { key: "?", does: "these keys" },
    { key: "1 – 6", does: "stations, in working order" },
    { key: "u", does: "turn units: metric, inch" },
    { key: "d", does: "dark or light" },
    { key: "n", does: "new job" },
  ];

  let finding = $state(false);
  let listing = $state(false);

  const shape = $derived(
    ticket.band && ticket.band.gullet_depth_mm > 0
      ? {
          form: ticket.band.form,
          pitch: ticket.band.pitch_mm,
          depth: ticket.band.gullet_depth_mm,
          hookDeg: ticket.band.hook_deg,
        }
      : null,
  );
  /** A page of one record starts anew for another: no form of the first is left in it. */
  const RECORD =
    /^\/(rack\/\d+|stock\/\d+|shop\/saws\/[^/]+(\/stand)?|shop\/materials\/.+|setup\/\d+)$/;
  const record = $derived(RECORD.test(router.location) ? router.location : "");
  const words = $derived(ticket.band ? `Band in hand: ${ticket.band.label}` : "No band chosen");
  const title = $derived(
    STATIONS.find((s) => router.location.startsWith(`/${s.key}`))?.name ?? "Plan",
  );

  // The theme is an attribute of the document, outside this component.
  $effect(() => {
    document.documentElement.dataset.theme = shop.theme;
  });
  // The tab's title is outside this component too.
  $effect(() => {
    document.title = `${title} · ${ticket.name} · Jade Ribbon`;
  });

  // The worker that keeps answers for when there is no network is outside this component.
  $effect(() => provide(ticket.job));

  async function begin(): Promise<void> {
    await door.look();
    if (door.shut) return;
    await shop.load();
    if (ticket.draft.saw_id === null && shop.saws[0]) ticket.begin(shop.saws[0].id);
  }
  void begin();

  /** A code scanned off the owner's screen comes with the address; it is not left standing there. */
  const scanned = /^#\/join\/(\d+)$/.exec(globalThis.location.hash)?.[1] ?? "";
  if (scanned) globalThis.history.replaceState(null, "", "#/");

  function typing(target: EventTarget | null): boolean {
    return (
      target instanceof HTMLElement &&
      (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
    );
  }

  function key(event: KeyboardEvent): void {
    if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
    const station = STATIONS[Number(event.key) - 1];
    if (event.key === "/") finding = true;
    else if (event.key === "?") listing = true;
    else if (event.key === "u") shop.turnUnits();
    else if (event.key === "d") shop.turnTheme();
    else if (event.key === "n") {
      ticket.startNew(ticket.draft.saw_id);
      void push("/plan");
    } else if (station) void push(`/${station.key}`);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={key} onunhandledrejection={(e) => notice.fail(e.reason)} />

{#if door.shut}
  <Join {scanned} onjoined={() => void begin()} />
{:else}
  <a
    class="skip no-print"
    href="#main"
    onclick={(e) => {
      e.preventDefault();
      document.getElementById("main")?.focus();
    }}>To the work</a
  >
  <Ribbon band={shape} bandWords={words} stations={STATIONS} />
  <div class="page">
    {#if looksRound}
      <p class="sample no-print" role="status">
        The sample yard, to look round in: nothing is kept here.
        <button type="button" onclick={backToShop}>Back to my shop</button>
      </p>
    {/if}
    {#if away.since}
      <p class="away no-print" role="status">
        The shop’s machine does not answer. Shown is what it said {day(away.since)}, {time(
          away.since,
        )}{outbox.count > 0 ? `; ${outbox.count} written down here since` : ""}.
      </p>
    {/if}
    <div class="top">
      <Ticket />
      <div class="tools no-print">
        <div class="kept">
          {#if outbox.count > 0}
            <a href="#/waiting" data-refused={outbox.anyRefused}>{outbox.count} not sent</a>
          {/if}
          {#if drafts.count > 0}
            <a href="#/waiting">{drafts.count} not saved</a>
          {/if}
        </div>
        {#if door.state?.here === "network"}
          <span class="device">{door.state.name}</span>
        {/if}
        <a class="help" href="#/help">Help</a>
        <button type="button" aria-label="Find anything" onclick={() => (finding = true)}
          >Find</button
        >
        <button
          type="button"
          aria-label="{shop.unit('length')}, turn units over"
          onclick={() => shop.turnUnits()}>{shop.unit("length")}</button
        >
        <button
          type="button"
          aria-label="{shop.theme === 'light' ? 'Dark' : 'Light'} theme"
          onclick={() => shop.turnTheme()}>{shop.theme === "light" ? "Dark" : "Light"}</button
        >
      </div>
    </div>
    <main id="main" tabindex="-1">
      {#if shop.failed}
        <p role="alert">{shop.words(shop.failed)}</p>
        <button type="button" onclick={() => void shop.load()}>Try again</button>
      {:else if shop.ready}
        {#key record}
          <Router routes={ROUTES} />
        {/key}
      {/if}
    </main>
  </div>
  <NoticeLine />
{/if}
{#if finding}<Finder onclose={() => (finding = false)} />{/if}
{#if listing}<Shortcuts keys={KEYS} onclose={() => (listing = false)} />{/if}

<style>
  .page {
    margin-left: var(--ribbon-width);
    padding: var(--s4) var(--s5) var(--s6) var(--s6);
    max-width: 90rem;
  }
  .top {
    display: flex;
    gap: var(--s4);
    align-items: center;
  }
  .away {
    padding: var(--s2) var(--s3);
    border-top: var(--rule) solid var(--brass);
    font-weight: 650;
  }
  .sample {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
    padding: 0 var(--s3);
    background: var(--jade-pale);
    border-top: var(--rule) solid var(--brass);
    font-weight: 650;
  }
  .sample button {
    min-height: var(--touch);
    background: none;
    border: 0;
    font-weight: 650;
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  .top > :global(.ticket) {
    flex: 1;
    min-width: 0;
  }
  .tools {
    display: flex;
  }
  .tools button,
  .help {
    min-width: var(--touch);
    min-height: var(--touch);
    padding: 0 var(--s2);
    background: none;
    border: 0;
    color: var(--ink-soft);
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  .help {
    display: inline-flex;
    align-items: center;
    justify-content: center;
  }
  .device {
    align-self: center;
    padding: 0 var(--s2);
    color: var(--ink-soft);
  }
  .kept {
    display: grid;
    align-content: center;
    padding: 0 var(--s2);
    font-weight: 650;
  }
  .kept [data-refused="true"] {
    color: var(--vermilion);
  }
  main {
    padding-top: var(--s4);
    outline: none;
  }
  .skip {
    position: absolute;
    left: -100rem;
    z-index: 5;
    background: var(--paper);
    padding: var(--s3);
  }
  .skip:focus {
    left: var(--s3);
    top: var(--s3);
  }
  @media (max-width: 720px) {
    .page {
      margin-left: 0;
      padding: var(--s3) var(--s3) 8rem;
    }
    .top {
      flex-direction: column;
      align-items: stretch;
      gap: 0;
    }
    .tools {
      justify-content: flex-end;
    }
  }
  @media print {
    .page {
      margin: 0;
      padding: 0;
    }
  }
</style>
