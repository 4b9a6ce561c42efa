"""Every page looked through in every width: nothing serious, nothing cut off, nothing too small."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import CONTEXT, serious

WIDE = 1280
WIDTHS = (WIDE, 834, 390, 320)
BY_WIDTH = ("target-size", "scrollable-region-focusable", "nested-interactive")
"""Rules of the reader that hang on how a page lies."""
TOUCHED = 900
"""Narrower than this a page is worked by fingers."""
PAGES = (
    "plan",
    "setup",
    "run",
    "inspect",
    "jobs",
    "rack",
    "rack/new",
    "rack/list",
    "rack/radius",
    "rack/shopping",
    "rack/types",
    "rack/sharpening",
    "rack/made",
    "rack/labels",
    "rack/learned",
    "scan",
    "money",
    "money/all-round",
    "rack/{worn}",
    "faults",
    "faults/{asking}",
    "faults/{closed}",
    "faults/book",
    "faults/signs",
    "faults/ear",
    "faults/cards",
    "faults/kit",
    "stock",
    "cutlist",
    "joinery",
    "shop",
    "shop/saws/new",
    "shop/saws/2",
    "shop/saws/1/stand",
    "shop/rules",
    "shop/prices",
    "shop/setting-up",
    "shop/about",
    "shop/network",
    "shop/keeping",
    "shop/files",
    "shop/saws/1/upkeep",
    "shop/materials",
    "shop/materials/european_larch_dry",
    "changes",
    "waiting",
    "start",
    "help",
    "help/kerf",
    "nowhere",
)
MEASURED = """() => {
  const shown = (e) => {
    const r = e.getBoundingClientRect();
    return r.width > 0 && r.height > 0 && !e.closest('.unseen') &&
      getComputedStyle(e).visibility !== 'hidden';
  };
  const tiny = [], small = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walk.nextNode()) {
    const e = walk.currentNode.parentElement;
    if (!walk.currentNode.textContent.trim() || !shown(e) || e.closest('script,style,option'))
      continue;
    const svg = e.closest('svg');
    const box = svg?.viewBox?.baseVal?.width;
    const scale = box ? svg.getBoundingClientRect().width / box : 1;
    const size = parseFloat(getComputedStyle(e).fontSize) * scale;
    if (size < 11.5) tiny.push(`${walk.currentNode.textContent.trim().slice(0, 24)} ${size}`);
  }
  for (const e of document.querySelectorAll('button, summary, select, input')) {
    if (!shown(e) || e.disabled) continue;
    const label = e.closest('label');
    const box = (/checkbox|radio/.test(e.type) && label ? label : e).getBoundingClientRect();
    const name = (e.textContent || e.type).trim().slice(0, 24);
    if (box.height < 43.5) small.push(`${name} ${box.height}`);
  }
  return {over: document.documentElement.scrollWidth - innerWidth, tiny, small};
}"""


def paths(page: Page, address: str) -> list[str]:
    bands = page.request.get(f"{address}/api/bands").json()
    worn = max(bands, key=lambda b: b["runs"])["id"]
    troubles = page.request.get(f"{address}/api/faults").json()["troubles"]
    asking, closed = (
        next(t["id"] for t in troubles if t["state"] == s) for s in ("open", "closed")
    )
    return [path.format(worn=worn, asking=asking, closed=closed) for path in PAGES]


QUIET = """async () => {
  // A page has come when nothing was asked for, and nothing of it moved, for a moment.
  let last = '';
  for (let still = 0; still < 3; ) {
    await new Promise((done) => setTimeout(done, 40));
    const asked = performance.getEntriesByType('resource').length;
    const now = `${asked} ${document.querySelector('main')?.innerText ?? ''}`;
    const reading = /Reading|Working|Adding up/.test(now);
    still = now === last && !reading ? still + 1 : 0;
    last = now;
  }
}"""


PAINTED = "() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))"


def opened(page: Page, address: str) -> None:
    """Open a page, and wait until it has come."""
    page.goto(address)
    page.evaluate(QUIET)


def themed(page: Page, theme: str) -> None:
    """Turn the page over to a theme; the key that does it has a test of its own."""
    page.evaluate("(theme) => { document.documentElement.dataset.theme = theme; }", theme)


@contextmanager
def with_a_job(browser: Browser, address: str) -> Iterator[Page]:
    """A page with a job in hand, as a phone has it: worked by fingers too."""
    context = browser.new_context(**CONTEXT, has_touch=True)
    page = context.new_page()
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Garboards for the ferry")
    page.goto(f"{address}/#/plan/{job['id']}")
    expect(page.get_by_role("region", name="The band")).to_be_visible()
    yield page
    context.close()


def measured(page: Page, width: int) -> list[str]:
    """What is over the edge or too small in a width."""
    page.set_viewport_size({"width": width, "height": 844})
    page.evaluate(PAINTED)
    told = page.evaluate(MEASURED)
    wrong: list[str] = told["tiny"] + (told["small"] if width < TOUCHED else [])
    if told["over"] > 0:
        wrong.append(f"{told['over']} px over the edge")
    return [f"{width}: {words}" for words in wrong]


def looked_through(browser: Browser, address: str) -> dict[str, Any]:
    """What is wrong on any page: in every width, and by rules at either end of them.

    A theme is its colours, and these do not hang on a width: dark is looked at wide.
    """
    found: dict[str, Any] = {}
    with with_a_job(browser, address) as page:
        for path in paths(page, address):
            opened(page, f"{address}/#/{path}")
            wrong = [words for width in WIDTHS for words in measured(page, width)]
            wrong += serious(page, *BY_WIDTH)
            page.set_viewport_size({"width": WIDE, "height": 844})
            wrong += serious(page)
            themed(page, "dark")
            wrong += serious(page, "color-contrast")
            themed(page, "light")
            if wrong:
                found[path] = wrong[:4]
    return found
