"""The first hour: an empty file to a logged run, counted; a sample yard; a copy brought back."""

import re
import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.support.served import served

MOST_TAPS, MOST_KEYS = 25, 40


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[str]:
    with served(tmp_path / "empty.sqlite") as url:
        yield url


class Hand:
    """A hand that counts what it taps and types."""

    def __init__(self) -> None:
        self.taps = self.keys = 0

    def tap(self, target: Locator) -> None:
        target.click()
        self.taps += 1

    def type(self, target: Locator, text: str) -> None:
        self.tap(target)
        target.press_sequentially(text)
        self.keys += len(text)


def test_from_nothing_to_a_logged_run(page: Page, empty: str) -> None:
    hand = Hand()
    page.goto(f"{empty}/")
    hand.tap(page.get_by_role("link", name="Add my saw"))
    hand.tap(page.get_by_role("button", name=re.compile("^Shop saw")))
    hand.tap(page.get_by_role("button", name="Save saw"))
    hand.tap(page.get_by_role("link", name="Add a band"))
    hand.type(page.get_by_label("Width", exact=True), "13")
    hand.type(page.get_by_label("Teeth per inch"), "6")
    hand.tap(page.get_by_role("button", name="Save band"))
    expect(page.get_by_text("1 band is on the rack.")).to_be_visible()
    hand.tap(page.get_by_role("link", name="Plan a job"))
    expect(page.get_by_role("region", name="The band")).to_contain_text("B-01")
    page.get_by_text("Why, how sure").click()
    expect(page.get_by_text("of Shop saw: ")).to_be_visible()
    hand.tap(page.get_by_role("button", name="Use it: set up"))
    page.wait_for_url(re.compile("#/setup/"))
    hand.tap(page.get_by_role("link", name="Run", exact=True).first)
    for what in ("Push stick", "Extraction on", "In- and outfeed", "Isolator"):
        hand.tap(page.get_by_role("button", name=re.compile(f"^{what}")))
    hand.tap(page.get_by_role("button", name=re.compile("^Log ")))
    hand.tap(page.get_by_role("button", name=re.compile("^As planned")))
    expect(page.get_by_text("1 of 4 pieces logged")).to_be_visible()
    expect(page.get_by_text("of them not sent")).to_be_hidden()
    expect(page.get_by_role("link", name="1 not sent")).to_be_hidden()
    (band,) = page.request.get(f"{empty}/api/bands").json()
    assert band["runs"] == 1
    print(f"first hour: {hand.taps} taps, {hand.keys} keystrokes")
    assert hand.taps < MOST_TAPS
    assert hand.keys < MOST_KEYS


def test_a_kind_s_figures_are_assumed_until_they_are_read_off(page: Page, empty: str) -> None:
    page.goto(f"{empty}/#/shop/saws/new")
    page.get_by_role("button", name=re.compile("^Bench saw")).click()
    page.get_by_label("Motor", exact=True).fill("3/4 hp")
    page.get_by_text("Details", exact=True).click()
    page.get_by_role("button", name="Confirm Throat").click()
    page.get_by_text("Work it out").click()
    page.get_by_label("Turns of the wheel a minute").fill("1 050")
    page.get_by_role("button", name=re.compile("^Take 13.7")).click()
    page.get_by_role("button", name="Save saw").click()
    expect(page.get_by_text("Bench saw is here.")).to_be_visible()
    (saw,) = page.request.get(f"{empty}/api/saws").json()
    assert saw["saw"]["motor_kW"] == pytest.approx(0.5593, abs=1e-3)
    assert saw["saw"]["drive"]["speeds_m_s"] == [pytest.approx(13.744, abs=1e-3)]
    assert not {"motor_kW", "throat_mm", "drive"} & set(saw["assumed"])
    assert "height_mm" in saw["assumed"]


def test_bands_come_in_from_a_pasted_list(page: Page, empty: str) -> None:
    page.goto(f"{empty}/#/rack/list")
    sheet = "tag\twidth\tteeth\tlength\nQ-1\t13\t6\t3360\nQ-2\t3/4\t4\t3360\n"
    page.get_by_label("The list").fill(sheet)
    expect(page.get_by_text("may be inches")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Bring in"))).to_be_disabled()
    page.get_by_label("The list").fill(sheet.replace("3/4", '3/4"'))
    page.get_by_role("button", name="Bring in 2 bands").click()
    expect(page.get_by_text("2 bands are on the rack.")).to_be_visible()
    expect(page.locator("ul.bands li")).to_have_count(2)


def test_a_sample_yard_is_looked_round_in_and_left(
    page: Page, yard_file: Path, tmp_path: Path
) -> None:
    shutil.copy(yard_file, tmp_path / "mine.sample-yard.sqlite")
    with served(tmp_path / "mine.sqlite") as url:
        page.goto(f"{url}/")
        page.get_by_role("button", name="Look round").click()
        expect(page.get_by_text("The sample yard, to look round in")).to_be_visible()
        page.goto(f"{url}/#/rack")
        expect(page.get_by_text(re.compile(r"^\d\d of \d\d bands$"))).to_be_visible()
        page.get_by_role("button", name="Back to my shop").click()
        expect(page.get_by_role("heading", name="First, the saw and a band.")).to_be_visible()


def test_a_copy_is_taken_and_brought_back(page: Page, address: str) -> None:
    page.goto(f"{address}/#/shop/keeping")
    page.get_by_role("button", name="Take a copy now").click()
    expect(page.get_by_text("A copy is taken.")).to_be_visible()
    name = page.request.get(f"{address}/api/shop").json()["name"]
    page.goto(f"{address}/#/shop/about")
    page.get_by_label("Name", exact=True).fill("Misnamed")
    page.get_by_label("Currency").focus()
    expect(page.get_by_text("Saved.")).to_be_visible()
    page.goto(f"{address}/#/shop/keeping")
    page.get_by_role("button", name="Restore …").first.click()
    expect(page.get_by_text("Everything recorded since then")).to_be_visible()
    page.get_by_role("button", name=re.compile(r"^Restore \d")).click()
    expect(page.get_by_text("The shop is as it was on")).to_be_visible()
    assert page.request.get(f"{address}/api/shop").json()["name"] == name
