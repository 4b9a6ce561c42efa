/** Which page stands at which address, and what it is called. All but Plan are loaded when opened. */
import { wrap } from "svelte-spa-router/wrap";

import NotHere from "./stations/help/NotHere.svelte";
import Plan from "./stations/plan/Plan.svelte";

type Load = () => Promise<{ default: unknown }>;
interface PageOf {
  readonly path: string;
  readonly title: string;
  readonly load: Load;
  /** Used at the saw: fetched in a quiet moment, so that it opens without a network too. */
  readonly atSaw?: boolean;
}

const PAGES: readonly PageOf[] = [
  { path: "/start", title: "First steps", load: () => import("./stations/start/Start.svelte") },
  { path: "/jobs", title: "Jobs", load: () => import("./stations/plan/Jobs.svelte"), atSaw: true },
  {
    path: "/setup/:id?",
    title: "Set up",
    load: () => import("./stations/setup/SetUp.svelte"),
    atSaw: true,
  },
  { path: "/run/:id?", title: "Run", load: () => import("./stations/run/Run.svelte"), atSaw: true },
  {
    path: "/inspect/:id?",
    title: "Inspect",
    load: () => import("./stations/inspect/Inspect.svelte"),
    atSaw: true,
  },
  { path: "/stock", title: "Stock", load: () => import("./stations/stock/Stock.svelte") },
  { path: "/stock/:id", title: "Stock", load: () => import("./stations/stock/StockPage.svelte") },
  { path: "/cutlist", title: "Cut list", load: () => import("./stations/stock/CutList.svelte") },
  {
    path: "/joinery",
    title: "Rings and circles",
    load: () => import("./stations/stock/Joinery.svelte"),
  },
  { path: "/rack", title: "Rack", load: () => import("./stations/rack/Rack.svelte"), atSaw: true },
  {
    path: "/rack/new",
    title: "Add a band",
    load: () => import("./stations/rack/Rack.svelte"),
  },
  {
    path: "/rack/list",
    title: "Bands from a list",
    load: () => import("./stations/rack/BringBands.svelte"),
  },
  {
    path: "/rack/radius",
    title: "Radius card",
    load: () => import("./stations/rack/RadiusCard.svelte"),
  },
  {
    path: "/rack/shopping",
    title: "Shopping and spares",
    load: () => import("./stations/rack/keeping/Shopping.svelte"),
  },
  {
    path: "/rack/sharpening",
    title: "Sharpening",
    load: () => import("./stations/rack/keeping/Sharpening.svelte"),
  },
  {
    path: "/rack/made",
    title: "Bands made here",
    load: () => import("./stations/rack/keeping/MadeHere.svelte"),
  },
  {
    path: "/rack/labels",
    title: "Labels",
    load: () => import("./stations/rack/keeping/Labels.svelte"),
  },
  {
    path: "/rack/learned",
    title: "What edges taught",
    load: () => import("./stations/rack/learning/Learned.svelte"),
  },
  {
    path: "/scan",
    title: "Scan a label",
    load: () => import("./stations/scan/Scan.svelte"),
    atSaw: true,
  },
  { path: "/log", title: "Log", load: () => import("./stations/log/Log.svelte") },
  { path: "/money", title: "Money", load: () => import("./stations/money/Money.svelte") },
  {
    path: "/money/all-round",
    title: "One band for many jobs",
    load: () => import("./stations/money/AllRound.svelte"),
  },
  {
    path: "/shop/files",
    title: "Records out and in",
    load: () => import("./stations/files/Files.svelte"),
  },
  {
    path: "/shop/saws/:id/upkeep",
    title: "Upkeep",
    load: () => import("./stations/upkeep/Upkeep.svelte"),
  },
  {
    path: "/rack/types",
    title: "Band types",
    load: () => import("./stations/rack/Types.svelte"),
  },
  {
    path: "/rack/:id",
    title: "Band",
    load: () => import("./stations/rack/band/BandPage.svelte"),
    atSaw: true,
  },
  {
    path: "/faults",
    title: "Faults",
    load: () => import("./stations/faults/Signs.svelte"),
    atSaw: true,
  },
  {
    path: "/faults/book",
    title: "Trouble book",
    load: () => import("./stations/faults/Book.svelte"),
  },
  {
    path: "/faults/signs",
    title: "Signs side by side",
    load: () => import("./stations/faults/Gallery.svelte"),
  },
  { path: "/faults/ear", title: "The ear", load: () => import("./stations/faults/Ear.svelte") },
  {
    path: "/faults/cards",
    title: "Cards for the wall",
    load: () => import("./stations/faults/Cards.svelte"),
  },
  {
    path: "/faults/kit",
    title: "What we check with",
    load: () => import("./stations/faults/Kit.svelte"),
  },
  {
    path: "/faults/:id",
    title: "A trouble",
    load: () => import("./stations/faults/Trouble.svelte"),
    atSaw: true,
  },
  { path: "/shop", title: "Shop", load: () => import("./stations/shop/Shop.svelte") },
  {
    path: "/shop/materials/:key?",
    title: "Materials",
    load: () => import("./stations/shop/settings/Materials.svelte"),
  },
  {
    path: "/shop/rules",
    title: "House rules",
    load: () => import("./stations/shop/settings/HouseRules.svelte"),
  },
  {
    path: "/shop/prices",
    title: "Prices",
    load: () => import("./stations/shop/settings/Prices.svelte"),
  },
  {
    path: "/shop/setting-up",
    title: "Setting up",
    load: () => import("./stations/shop/settings/SettingUp.svelte"),
  },
  {
    path: "/shop/about",
    title: "This shop",
    load: () => import("./stations/shop/settings/About.svelte"),
  },
  {
    path: "/shop/network",
    title: "Network",
    load: () => import("./stations/shop/keeping/Network.svelte"),
  },
  {
    path: "/shop/keeping",
    title: "Copies",
    load: () => import("./stations/shop/keeping/Keeping.svelte"),
  },
  {
    path: "/shop/saws/:id/considered",
    title: "A saw considered",
    load: () => import("./stations/shop/saw/Considered.svelte"),
  },
  {
    path: "/shop/saws/:id/stand",
    title: "The saw as it stands",
    load: () => import("./stations/shop/saw/Stand.svelte"),
  },
  {
    path: "/shop/saws/:id",
    title: "A saw",
    load: () => import("./stations/shop/saw/SawForm.svelte"),
  },
  {
    path: "/changes/:noun?/:id?",
    title: "Changes",
    load: () => import("./stations/changes/Changes.svelte"),
  },
  {
    path: "/waiting",
    title: "Waiting",
    load: () => import("./stations/changes/Waiting.svelte"),
    atSaw: true,
  },
  { path: "/device", title: "This device", load: () => import("./stations/join/Device.svelte") },
  { path: "/help/:key?", title: "Help", load: () => import("./stations/help/Help.svelte") },
];

function later({ load }: PageOf) {
  const asked = () =>
    load().catch(() => {
      throw new Error("This page is loaded when it is first opened: try again with a network.");
    });
  return wrap({ asyncComponent: asked as Parameters<typeof wrap>[0]["asyncComponent"] });
}

// Addresses in full stand before those with a part left open.
const inOrder = [...PAGES].sort(
  (a, b) => Number(a.path.includes(":")) - Number(b.path.includes(":")),
);

export const ROUTES = {
  "/": Plan,
  "/plan/:id?": Plan,
  ...Object.fromEntries(inOrder.map((page) => [page.path, later(page)])),
  "*": NotHere,
};

function matches(path: string, location: string): boolean {
  const parts = path.split("/");
  const given = location.split("/");
  return (
    given.length <= parts.length &&
    parts.every((part, i) =>
      part.startsWith(":") ? part.endsWith("?") || Boolean(given[i]) : part === given[i],
    )
  );
}

/** What the page at an address is called. */
export function titleOf(location: string): string {
  if (location === "/" || /^\/plan(\/|$)/.test(location)) return "Plan";
  return inOrder.find((page) => matches(page.path, location))?.title ?? "Not here";
}

const QUIET_MS = 5000;

/** Fetches what is used at the saw, once the first answer has had the network to itself. */
export function warm(): void {
  setTimeout(() => {
    // What cannot be had now is asked for when it is opened.
    for (const page of PAGES) if (page.atSaw) page.load().catch(() => undefined);
  }, QUIET_MS);
}
