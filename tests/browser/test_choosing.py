"""Choosing, as operators meet it: a curve from a drawing, a stop, a comparison, a what-if."""

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import serious
from tests.support.shop import DATA

DRAWING = DATA / "curves" / "s-bend.svg"


def start(page: Page, address: str, **cut: object) -> None:
    """Open a saved job with this cut."""
    usual = {"length_mm": 600, "count": 4, "finish": "plane", "saw_id": 2, "name": "Trial"}
    job = page.request.post(f"{address}/api/jobs", data={**usual, **cut}).json()
    page.goto(f"{address}/#/plan/{job['id']}")
    page.wait_for_load_state("networkidle")


def test_a_curve_from_a_dropped_drawing(page: Page, address: str) -> None:
    start(
        page, address, operation="curve", material="white_oak_dry", height_mm=40, min_radius_mm=400
    )
    wide = page.get_by_role("region", name="The band").inner_text()
    data = page.evaluate_handle(
        """([text]) => { const d = new DataTransfer();
        d.items.add(new File([text], 's-bend.svg', {type: 'image/svg+xml'})); return d; }""",
        [DRAWING.read_text()],
    )
    page.get_by_role("region", name="Outline").dispatch_event("drop", {"dataTransfer": data})
    expect(page.get_by_text("Tightest smooth radius")).to_contain_text("29 mm")
    expect(page.get_by_role("img", name=re.compile("tightest radius"))).to_be_visible()
    expect(page.get_by_role("button", name="29 mm", exact=True)).to_be_visible()
    expect(page.get_by_role("region", name="The band")).not_to_have_text(wide)
    page.get_by_text("In the curve").click()
    expect(page.get_by_role("img", name=re.compile("leaning in its kerf"))).to_be_visible()
    page.get_by_text("Cost", exact=True).click()
    for part in ("edge", "time", "kerf", "change-over"):
        expect(page.get_by_role("term").get_by_text(part, exact=True)).to_be_visible()
    page.get_by_label("Outline file").set_input_files(
        {"name": "bad.svg", "mimeType": "image/svg+xml", "buffer": b"<svg"}
    )
    expect(page.get_by_role("alert")).to_contain_text("not sound XML")


def test_steel_on_a_wood_speed_saw_is_stopped(page: Page, address: str) -> None:
    start(page, address, operation="bar", material="mild_steel", height_mm=30)
    expect(page.get_by_role("alert")).to_contain_text("Stop. The slowest speed, 7.00 m/s")
    expect(page.get_by_role("button", name=re.compile("set up$"))).to_have_count(0)
    page.get_by_text("Other saws").click()
    page.get_by_role("button", name="Iron Maud").click()
    expect(page.get_by_role("region", name="The band")).to_contain_text("I-0")


def test_two_bands_side_by_side(page: Page, address: str) -> None:
    start(page, address, operation="resaw", material="european_larch_dry", height_mm=150)
    page.get_by_role("button", name="Use another").click()
    page.get_by_label("compare").first.check()
    compared = page.get_by_role("region", name="Compared")
    expect(compared).to_contain_text("tightest radius")
    expect(compared.get_by_text("best").first).to_be_attached()
    assert compared.locator(".head").count() == 2
    compared.get_by_role("button", name="Close").click()
    expect(compared).to_have_count(0)


def test_what_if_moves_and_resets(page: Page, address: str) -> None:
    start(page, address, operation="resaw", material="european_larch_dry", height_mm=150)
    set_up = page.get_by_role("button", name="Use it: set up")
    expect(set_up).to_be_enabled()
    page.get_by_text("What if", exact=True).click()
    page.get_by_label(re.compile("^motor")).fill("6")
    expect(page.get_by_text("Tried out: the answer above")).to_be_visible()
    expect(set_up).to_have_count(0)
    page.get_by_role("button", name="Reset", exact=True).click()
    expect(set_up).to_be_enabled()


def test_a_material_is_corrected_and_put_back(page: Page, address: str) -> None:
    page.goto(f"{address}/#/shop/materials")
    page.get_by_label("Material").fill("lrch")
    page.get_by_role("button", name="European larch (dry)").click()
    page.get_by_label("Abrasiveness, against dry oak").fill("0.9")
    page.get_by_role("button", name="Save the shop’s figures").click()
    expect(page.get_by_role("button", name="Back to the table")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Back to the table")).to_have_count(0)


def test_a_type_of_the_shop_s_own_is_added_found_and_taken_back(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack/types")
    page.get_by_label("Width", exact=True).fill("22")
    page.get_by_label("Thickness", exact=True).fill("0.7")
    page.get_by_label("Teeth per inch", exact=True).fill("2")
    page.get_by_label("Price a metre", exact=True).fill("6.5")
    page.get_by_role("button", name="Add the type").click()
    row = (
        page.get_by_role("listitem")
        .filter(has_text="22 × 0.70 mm, 2 tpi hook")
        .filter(has_text="Edit")
    )
    expect(row).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(row).to_have_count(0)
    page.get_by_label("Width", exact=True).fill("6")
    page.get_by_label("Thickness", exact=True).fill("60")
    page.get_by_role("button", name="Add the type").click()
    expect(page.get_by_role("alert").first).to_contain_text("accepted: at most 5")


def test_what_the_choice_leans_on_is_worked_out_when_opened(page: Page, address: str) -> None:
    jobs = page.request.get(f"{address}/api/jobs").json()
    strakes = next(j for j in jobs if j["name"] == "Strakes for the tender")
    page.goto(f"{address}/#/plan/{strakes['id']}")
    page.get_by_text("Why, how sure").click()
    page.get_by_text("What the choice leans on").click()
    expect(page.get_by_text("Here:").first).to_be_visible()
    expect(page.get_by_text("House rules at work")).to_be_visible()
    assert serious(page) == []
