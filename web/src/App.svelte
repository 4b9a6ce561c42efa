<script lang="ts">
  import { tick } from "svelte";
  import Router, { push, router } from "svelte-spa-router";

  import { ask, client } from "./api/client";
  import { away } from "./lib/sending/away.svelte";
  import { session } from "./lib/session.svelte";
  import { drafts } from "./lib/edit.svelte";
  import { notice } from "./lib/notice.svelte";
  import { outbox } from "./lib/sending/outbox.svelte";
  import { shop } from "./lib/shop.svelte";
  import { recall, remember } from "./lib/storage";
  import { currentJob } from "./lib/currentJob.svelte";
  import { day, time } from "./lib/figures/units";
  import { backToShop, looksRound } from "./lib/sampleMode";
  import { provide } from "./offline/provide";
  import { ROUTES, titleOf, warm } from "./routes";
  import ClockLine from "./parts/shell/ClockLine.svelte";
  import Finder from "./parts/shell/Finder.svelte";
  import NoticeLine from "./parts/shell/NoticeLine.svelte";
  import Ribbon from "./parts/shell/Ribbon.svelte";
  import Shortcuts from "./parts/shell/Shortcuts.svelte";
  import Ticket from "./parts/shell/Ticket.svelte";

  /** `starts` where a new group of the work begins. */
  const STATIONS = [
    { key: "plan", name: "Plan", also: ["", "jobs"] },
    { key: "setup", name: "Set up" },
    { key: "run", name: "Run" },
    { key: "inspect", name: "Inspect" },
    { key: "rack", name: "Rack", also: ["scan"], starts: true },
    { key: "stock", name: "Stock", also: ["cutlist", "joinery"] },
    { key: "faults", name: "Faults" },
    { key: "log", name: "Log", also: ["money", "changes", "rack/learned", "faults/book"] },
    { key: "shop", name: "Shop", starts: true },
  ] as const;
  const KEYS = [
    { key: "/", does: "find anything" },
    { key: "?", does: "these keys" },
    { key: "1 – 9", does: "stations, in working order" },
    { key: "u", does: "turn units: metric, inch" },
    { key: "d", does: "dark or light" },
    { key: "n", does: "new job" },
  ];

  let finding = $state(false);
  let listing = $state(false);
  let oneKey = $state(recall("one-key", true));

  const shape = $derived(
    currentJob.band && currentJob.band.gullet_depth_mm > 0
      ? {
          form: currentJob.band.form,
          pitch: currentJob.band.pitch_mm,
          depth: currentJob.band.gullet_depth_mm,
          hookDeg: currentJob.band.hook_deg,
        }
      : null,
  );
  /** A page of one record starts anew for another: no form of the first is left in it. */
  const RECORD =
    /^\/(rack\/\d+|faults\/\d+|stock\/\d+|shop\/saws\/[^/]+(\/stand)?|shop\/materials\/.+|setup\/\d+)$/;
  const record = $derived(RECORD.test(router.location) ? router.location : "");
  const words = $derived(
    currentJob.band ? `Band in hand: ${currentJob.band.label}` : "No band chosen",
  );
  const title = $derived(titleOf(router.location));
  /** Said politely when another page has come. */
  let arrived = $state("");
  let first = true;

  /** Another page: it is told, and whoever goes by keys begins at its heading. */
  async function came(): Promise<void> {
    away.notKept = false;
    if (first) {
      first = false;
      warm();
      return;
    }
    arrived = title;
    await tick();
    const heading = document.querySelector<HTMLElement>("#main h1");
    const busy = document.activeElement;
    if (!heading || (busy && busy !== document.body && busy.closest("#main"))) return;
    heading.tabIndex = -1;
    heading.focus({ preventScroll: true });
  }

  // The theme is an attribute of the document, outside this component.
  $effect(() => {
    document.documentElement.dataset.theme = shop.theme;
  });
  // The tab's title is outside this component too.
  $effect(() => {
    document.title = `${title} · ${currentJob.name} · Jade Ribbon`;
  });

  // The worker that keeps answers for when there is no network is outside this component.
  $effect(() => provide(currentJob.job));

  // A run that was given up while it was under way is in the shop: whoever gave it up is told.
  $effect(() => {
    const run = outbox.sentAnyway;
    if (!run) return;
    outbox.sentAnyway = null;
    notice.offer("It was sent before it was given up.", "Undo", async () => {
      const params = { path: { run_id: run.id } };
      await ask(client.DELETE("/api/runs/{run_id}", { params }));
      notice.say("The run is taken back.");
    });
  });

  async function begin(): Promise<void> {
    // Both at once: over a slow network each question in turn is felt. One shut out has no shop.
    await Promise.all([session.look(), shop.load()]);
    if (session.shut) return;
    if (currentJob.draft.saw_id === null && shop.saws[0]) currentJob.begin(shop.saws[0].id);
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
    if (!oneKey || typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
    const station = STATIONS[Number(event.key) - 1];
    if (event.key === "/") finding = true;
    else if (event.key === "?") listing = true;
    else if (event.key === "u") shop.turnUnits();
    else if (event.key === "d") shop.turnTheme();
    else if (event.key === "n") {
      currentJob.startNew(currentJob.draft.saw_id);
      void push("/plan");
    } else if (station) void push(`/${station.key}`);
    else return;
    event.preventDefault();
  }
</script>

<p class="unseen" aria-live="polite">{arrived}</p>
<svelte:window onkeydown={key} onunhandledrejection={(e) => notice.fail(e.reason)} />

{#if session.shut}
  {#await import("./stations/join/Join.svelte") then { default: Join }}
    <Join {scanned} onjoined={() => void begin()} />
  {/await}
{:else}
  <a
    class="skip no-print"
    href="#main"
    onclick={(e) => {
      e.preventDefault();
      document.getElementById("main")?.focus();
    }}>To the work</a
  >
  {#if title === "Plan"}
    <a
      class="skip no-print"
      href="#use-it"
      onclick={(e) => {
        e.preventDefault();
        document.querySelector<HTMLElement>("#use-it button")?.focus();
      }}>To the answer</a
    >
  {/if}
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
    <ClockLine />
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
        {#if session.state?.here === "network"}
          <a class="device" href="#/device">{session.state.name || "This device"}</a>
        {/if}
        {#if !oneKey}
          <button type="button" onclick={() => (listing = true)}>Keys</button>
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
        {#if away.notKept}
          <p role="alert">
            This page is not kept on this device: open it once while the shop’s machine answers.
          </p>
        {/if}
        {#key record}
          <Router routes={ROUTES} onRouteLoaded={() => void came()} />
        {/key}
      {/if}
    </main>
  </div>
  <NoticeLine />
{/if}
{#if finding}<Finder onclose={() => (finding = false)} />{/if}
{#if listing}<Shortcuts
    keys={KEYS}
    on={oneKey}
    onturn={(on) => {
      oneKey = on;
      remember("one-key", on);
    }}
    onclose={() => (listing = false)}
  />{/if}

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
  /* Where the ribbon has no foot to hold it. */
  @media (min-width: 45.01em) {
    .help {
      display: none;
    }
  }
  @media (max-width: 45em) {
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
