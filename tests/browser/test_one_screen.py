"""One screen at a time: what is met first is small, and what is wanted is a tap or two away."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.looking import PAGES

HIGH = 800
MOST_HIGH = 2000
MOST_TABS = 8
LOOKED_AT = [path for path in PAGES if "{" not in path and path != "shop/saws/new"]
CUTS = (
    {"operation": "resaw", "saw_id": 1, "material": "european_larch_dry", "height_mm": 185},
    {"operation": "rip", "saw_id": 2, "material": "white_oak_dry", "height_mm": 40},
    {"operation": "crosscut", "saw_id": 2, "material": "white_oak_dry", "height_mm": 60},
    {"operation": "curve", "saw_id": 2, "material": "white_oak_dry", "height_mm": 40},
    {"operation": "circle", "saw_id": 2, "material": "white_oak_dry", "height_mm": 30},
    {"operation": "veneer", "saw_id": 1, "material": "european_larch_dry", "height_mm": 150},
    {"operation": "wedge", "saw_id": 2, "material": "european_larch_dry", "height_mm": 60},
    {"operation": "mill", "saw_id": 5, "material": "scots_pine_green", "height_mm": 300},
    {"operation": "reclaim", "saw_id": 1, "material": "white_oak_dry", "height_mm": 120},
    {"operation": "bar", "saw_id": 4, "material": "mild_steel", "height_mm": 60},
    {"operation": "tube", "saw_id": 4, "material": "mild_steel", "height_mm": 40},
    {"operation": "block", "saw_id": 3, "material": "white_oak_dry", "height_mm": 80},
)
MORE = {
    "curve": {"min_radius_mm": 400},
    "circle": {"min_radius_mm": 400},
    "resaw": {"slice_mm": 14},
    "veneer": {"slice_mm": 3},
    "wedge": {"angle_deg": 5},
    "reclaim": {"slice_mm": 20},
    "tube": {"wall_mm": 3},
}


def planned(page: Page, address: str, cut: dict[str, object]) -> None:
    """Open a saved job with this cut."""
    usual = {"length_mm": 600, "count": 4, "finish": "plane", "name": "Trial"}
    body = {**usual, **cut, **MORE.get(str(cut["operation"]), {})}
    job = page.request.post(f"{address}/api/jobs", data=body).json()
    page.goto(f"{address}/#/plan/{job['id']}")


@pytest.mark.parametrize("cut", CUTS, ids=[str(cut["operation"]) for cut in CUTS])
def test_plan_s_answer_and_what_to_do_with_it_stand_on_the_first_screen(
    page: Page, address: str, cut: dict[str, object]
) -> None:
    page.set_viewport_size({"width": 1280, "height": HIGH})
    planned(page, address, cut)
    for name in ("Use it: set up", "Use another"):
        button = page.get_by_role("button", name=name)
        expect(button).to_be_visible()
        box = button.bounding_box()
        assert box is not None and box["y"] + box["height"] <= HIGH


def test_no_page_is_endless_before_something_is_unfolded(page: Page, address: str) -> None:
    page.set_viewport_size({"width": 1280, "height": HIGH})
    high = {}
    for path in LOOKED_AT:
        page.goto(f"{address}/#/{path}")
        page.wait_for_load_state("networkidle")
        height = page.evaluate("document.documentElement.scrollHeight")
        if height > MOST_HIGH:
            high[path] = height
    assert high == {}


def test_set_up_is_a_few_keys_from_where_plan_begins(page: Page, address: str) -> None:
    planned(page, address, CUTS[0])
    use = page.get_by_role("button", name="Use it: set up")
    expect(use).to_be_visible()
    page.evaluate("document.activeElement.blur()")
    tabs = 0
    while page.evaluate("document.activeElement.textContent").strip() != "To the answer":
        page.keyboard.press("Tab")
        tabs += 1
        assert tabs < MOST_TABS
    page.keyboard.press("Enter")
    expect(use).to_be_focused()


def test_another_band_is_put_on_in_three_taps(page: Page, address: str) -> None:
    page.goto(f"{address}/#/run")
    page.get_by_role("link", name="Shop saw 400").click()
    page.get_by_text("Put another band on").click()
    row = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Put on")).first
    label = row.locator("strong").inner_text()
    row.get_by_role("button", name="Put on").click()
    expect(page.get_by_text(f"{label} is on Shop saw 400, slack.")).to_be_visible()
    saw = page.request.get(f"{address}/api/saws").json()[1]
    assert (saw["mounted_label"], saw["tension_state"]) == (label, "slack")


def test_a_saw_s_wheel_fills_the_other_and_the_band_s_length(page: Page, address: str) -> None:
    page.goto(f"{address}/#/shop/saws/new")
    page.get_by_role("button", name=re.compile("^Shop saw")).click()
    page.get_by_label("Wheel, first", exact=True).fill("450")
    page.get_by_text("Details", exact=True).click()
    expect(page.get_by_label("Wheel, second", exact=True)).to_have_value("450")
    longest = page.get_by_label("Longest band", exact=True)
    assert float(longest.input_value()) == pytest.approx(3380 * 450 / 400, rel=0.02)


def test_bands_are_added_one_after_another(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack/new")
    labels = []
    for width in ("13", "19"):
        page.get_by_label("Width", exact=True).fill(width)
        page.get_by_label("Teeth per inch", exact=True).fill("4")
        page.get_by_role("button", name="Save and add another").click()
        told = page.get_by_text(re.compile(r"is on the rack\.$"))
        expect(told).to_be_visible()
        expect(page.get_by_label("Width", exact=True)).to_have_value("")
        labels.append(told.inner_text().split(" is on")[0])
        page.get_by_role("button", name="Close").click()
    assert len(set(labels)) == 2


@pytest.mark.parametrize("path", ["run/999", "plan/999", "inspect/999", "shop/saws/999"])
def test_what_is_not_there_is_said(page: Page, address: str, path: str) -> None:
    page.goto(f"{address}/#/{path}")
    expect(page.get_by_role("heading", level=1)).to_contain_text(re.compile("no |No |not "))
    expect(page.get_by_text("Reading")).to_have_count(0)


def test_stations_without_a_job_show_what_can_be_taken_up(page: Page, address: str) -> None:
    for path in ("setup", "run", "inspect"):
        page.goto(f"{address}/#/{path}")
        expect(page.get_by_role("heading", name="Jobs to take up")).to_be_visible()
        expect(page.get_by_text("On the saws")).to_be_visible()
    page.goto(f"{address}/#/run")
    page.get_by_role("button", name="Strips for the canoe").click()
    expect(page.get_by_role("button", name=re.compile("^Log "))).to_be_visible()


def test_the_log_filters_sorts_and_pages(page: Page, address: str) -> None:
    page.goto(f"{address}/#/log")
    told = page.get_by_text(re.compile(r"^\d+ runs$"))
    every = int(told.inner_text().split()[0])
    saw = page.get_by_role("combobox", name=re.compile("^Saw"))
    saw.select_option("Trailer mill")
    expect(told).not_to_have_text(f"{every} runs")
    saw.select_option("any")
    expect(told).to_have_text(f"{every} runs")
    with page.expect_response(re.compile(r"/api/runs.*sort=pieces")):
        page.get_by_role("button", name="Pieces").click()
    pieces = page.locator("tbody tr td:nth-child(6)")
    expect(page.get_by_role("columnheader", name="Pieces")).to_have_attribute(
        "aria-sort", "descending"
    )
    most = max(run["pieces"] for run in page.request.get(f"{address}/api/runs").json()["runs"])
    expect(pieces.first).not_to_have_text("0")
    page.wait_for_function(
        """() => { const said = [...document.querySelectorAll('tbody tr td:nth-child(6)')]
            .map((cell) => Number(cell.textContent));
            return said.every((n, i) => i === 0 || n <= said[i - 1]); }"""
    )
    assert int(pieces.first.inner_text()) >= most
    page.get_by_role("button", name="Earlier runs").click()
    expect(page.get_by_text("page 2 of")).to_be_visible()
