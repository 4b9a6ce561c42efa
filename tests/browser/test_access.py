"""Every page, width and theme: nothing serious, nothing cut off, nothing too small."""

import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Playwright, expect

from jade_ribbon.demo.serving import CHROMIUM
from tests.browser.conftest import CONTEXT, serious

WIDTHS = (320, 390, 834, 1280)
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


@pytest.fixture(params=WIDTHS)
def wide(request: pytest.FixtureRequest, browser: Browser, address: str) -> Iterator[Page]:
    """A page of a width with a job in hand."""
    view: dict[str, Any] = {"viewport": {"width": request.param, "height": 844}}
    touched = request.param < TOUCHED
    context = browser.new_context(**CONTEXT | view, has_touch=touched)
    page = context.new_page()
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Garboards for the ferry")
    page.goto(f"{address}/#/plan/{job['id']}")
    expect(page.get_by_role("region", name="The band")).to_be_visible()
    yield page
    context.close()


def paths(page: Page, address: str) -> list[str]:
    bands = page.request.get(f"{address}/api/bands").json()
    worn = max(bands, key=lambda b: b["runs"])["id"]
    return [path.format(worn=worn) for path in PAGES]


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


def opened(page: Page, address: str) -> None:
    """Open a page, and wait until it has come."""
    page.goto(address)
    page.evaluate(QUIET)


def themed(page: Page, theme: str) -> None:
    """Turn the page over to a theme, by its key."""
    html = page.locator("html")
    if html.get_attribute("data-theme") != theme:
        page.locator("body").press("d")
    expect(html).to_have_attribute("data-theme", theme)


def test_nothing_is_serious_cut_off_or_too_small(wide: Page, address: str) -> None:
    """Every page once in each width: measured, then looked through in both themes."""
    found: dict[str, Any] = {}
    size = wide.viewport_size
    assert size is not None
    for path in paths(wide, address):
        opened(wide, f"{address}/#/{path}")
        told = wide.evaluate(MEASURED)
        wrong = told["tiny"] + (told["small"] if size["width"] < TOUCHED else [])
        if told["over"] > 0:
            wrong.append(f"{told['over']} px over the edge")
        # A theme is its colours: what else is looked at does not hang on it.
        themed(wide, "light")
        wrong += serious(wide)
        themed(wide, "dark")
        wrong += serious(wide, "color-contrast")
        if wrong:
            found[path] = wrong[:4]
    assert found == {}


def test_text_twice_as_large_is_not_cut_off(
    driver: Playwright, address: str, tmp_path: Path
) -> None:
    """The browser's own setting of its reader, not ours."""
    profile = tmp_path / "Default"
    profile.mkdir()
    large = {"webkit": {"webprefs": {"default_font_size": 32}}}
    (profile / "Preferences").write_text(json.dumps(large))
    context = driver.chromium.launch_persistent_context(
        tmp_path,
        executable_path=CHROMIUM,
        viewport={"width": 1280, "height": 800},
        service_workers="block",
    )
    page = context.new_page()
    page.goto(address)
    assert page.evaluate("getComputedStyle(document.documentElement).fontSize") == "32px"
    cut = {}
    for path in paths(page, address):
        opened(page, f"{address}/#/{path}")
        over = page.evaluate("document.documentElement.scrollWidth - innerWidth")
        if over > 0:
            cut[path] = over
    context.close()
    assert cut == {}


def test_every_page_has_a_title_and_says_that_it_came(page: Page, address: str) -> None:
    """A reader hears where it is; whoever goes by keys begins at the heading."""
    page.goto(f"{address}/#/plan")
    expect(page).to_have_title(re.compile("^Plan · "))
    page.get_by_role("link", name="Rack", exact=True).press("Enter")
    expect(page).to_have_title(re.compile("^Rack · "))
    expect(page.locator("p.unseen[aria-live=polite]")).to_have_text("Rack")
    page.keyboard.press("Escape")
    page.goto(f"{address}/#/no/such/page")
    expect(page.get_by_role("heading", name="There is no page at this address")).to_be_visible()


def test_keys_of_one_letter_can_be_turned_off(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    page.keyboard.press("?")
    page.get_by_label("One key alone does this").uncheck()
    page.get_by_role("button", name="Close").first.click()
    page.keyboard.press("1")
    expect(page.get_by_role("heading", name="Rack", exact=True)).to_be_visible()
    page.reload()
    page.get_by_role("button", name="Keys").click()
    page.get_by_label("One key alone does this").check()
    page.keyboard.press("Escape")
    expect(page.get_by_label("One key alone does this")).to_be_hidden()
    page.keyboard.press("1")
    expect(page).to_have_title(re.compile("^Plan · "))


def test_a_panel_closes_from_outside(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    page.keyboard.press("/")
    expect(page.get_by_role("dialog", name="Find anything")).to_be_visible()
    page.mouse.click(5, 500)
    expect(page.get_by_role("dialog", name="Find anything")).to_be_hidden()
