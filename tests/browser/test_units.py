"""The shop's units everywhere: no screen says a metric figure to who works in inches."""

import re

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import CONTEXT

METRIC = re.compile(r"\d[\s\u202f]?(mm|MPa|m/s|m/min|µm|kN|N)\b")
OPEN = "[["
SCREENS = {
    "Plan": "#/plan/{strakes}",
    "radius card": "#/rack/radii",
    "rack": "#/rack",
    "band": "#/rack/{band}",
    "saw as it stands": "#/shop/saws/1/stand",
    "Run": "#/run",
    "house rules": "#/shop/rules",
    "a new saw": "#/shop/saws/new",
    "prices": "#/shop/prices",
}


@pytest.fixture(scope="module")
def inches(browser: Browser, address: str) -> Page:
    """A page turned over to inches, a job of Strakes in hand."""
    page = browser.new_context(**CONTEXT).new_page()
    page.goto(f"{address}/#/shop")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.keyboard.press("u")
    expect(page.get_by_role("button", name="in, turn units over")).to_be_visible()
    return page


def opened(page: Page) -> str:
    """All that is said on a page, what is folded away too; one line gives every unit."""
    page.evaluate("for (const d of document.querySelectorAll('details')) d.open = true")
    page.wait_for_load_state("networkidle")
    return str(page.locator("main").inner_text())


def metric_words(text: str) -> list[str]:
    lines = [line for line in text.splitlines() if METRIC.search(line) or OPEN in line]
    return [line for line in lines if "kgf/cm²" not in line]


@pytest.mark.parametrize("screen", SCREENS)
def test_a_screen_says_inches(inches: Page, address: str, screen: str) -> None:
    jobs = inches.request.get(f"{address}/api/jobs").json()
    strakes = next(j["id"] for j in jobs if j["name"] == "Strakes for the tender")
    band = inches.request.get(f"{address}/api/bands").json()[0]["id"]
    inches.goto(f"{address}/{SCREENS[screen].format(strakes=strakes, band=band)}")
    expect(
        inches.get_by_role("heading", level=1).or_(inches.get_by_role("region")).first
    ).to_be_visible()
    inches.wait_for_load_state("networkidle")
    assert metric_words(opened(inches)) == []


def test_every_step_of_a_card_says_inches(inches: Page, address: str) -> None:
    jobs = inches.request.get(f"{address}/api/jobs").json()
    begun = next(j for j in jobs if j["name"] == "Garboards for the ferry")
    inches.goto(f"{address}/#/setup/{begun['setup_id']}")
    steps = inches.get_by_role("list", name="Steps").get_by_role("button")
    expect(steps.first).to_be_visible()
    found = {}
    for step in steps.all():
        step.click()
        inches.wait_for_load_state("networkidle")
        if said := metric_words(opened(inches)):
            found[step.inner_text()] = said
    assert found == {}


def test_units_turn_over_where_they_stand(inches: Page, address: str) -> None:
    jobs = inches.request.get(f"{address}/api/jobs").json()
    strakes = next(j["id"] for j in jobs if j["name"] == "Strakes for the tender")
    inches.goto(f"{address}/#/plan/{strakes}")
    inches.get_by_text("Why, how sure").click()
    why = inches.get_by_role("region", name="Why, how sure")
    expect(why).to_contain_text("lbf at the wheel")
    inches.keyboard.press("u")
    expect(why).to_contain_text("N at the wheel")
    expect(why).not_to_contain_text("lbf")
    inches.keyboard.press("u")


def test_an_error_is_said_in_inches_too(inches: Page, address: str) -> None:
    jobs = inches.request.get(f"{address}/api/jobs").json()
    strakes = next(j["id"] for j in jobs if j["name"] == "Strakes for the tender")
    inches.goto(f"{address}/#/plan/{strakes}")
    inches.get_by_role("button", name="7.283 in").click()
    inches.get_by_label("Height in the cut").fill("14")
    expect(inches.get_by_text("14 in does not go under the guides").first).to_be_visible()
