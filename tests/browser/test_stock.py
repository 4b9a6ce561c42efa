"""Stock: a log to boards, a cut dragged, a billet opened, metal mapped; rings and circles."""

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import serious


def take(page: Page, address: str, name: str) -> int:
    """Take a job of the yard in hand; its number."""
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == name)
    page.goto(f"{address}/#/plan/{job['id']}")
    expect(page.get_by_role("button", name="Use it: set up")).to_be_visible()
    return int(job["id"])


def test_a_log_becomes_boards(page: Page, address: str) -> None:
    page.goto(f"{address}/#/stock")
    page.get_by_role("button", name="Add a log").click()
    page.get_by_label("Label").fill("G-99")
    page.get_by_label("Small end, across").fill("420")
    page.get_by_label("Bark", exact=True).fill("10")
    page.get_by_label("Length", exact=True).fill("4000")
    page.get_by_label("Price").fill("80")
    page.get_by_role("button", name="Put the log on the rack").click()
    page.get_by_role("link", name="G-99").click()
    page.get_by_text("What it is reckoned with").click()
    page.get_by_label("Boards this thick").fill("30")
    # Twelve of 30 with their kerfs reach 187.7 of 200 from the middle: 138 wide; thirteen 203.
    expect(page.get_by_text("Through and through: 12 boards")).to_be_visible()
    through = page.get_by_role("img", name="Through and through")
    expect(through.locator("rect")).to_have_count(12)
    page.get_by_label("A cant this thick").fill("200")
    expect(page.get_by_text(re.compile(r"Around a cant of 200 mm"))).to_be_visible()
    assert serious(page) == []
    page.get_by_role("button", name="Sawn up").click()
    expect(page.get_by_text("It is sawn up and off the rack.")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Sawn up")).to_be_visible()


def test_a_cut_is_dragged_and_the_yield_answers(page: Page, address: str) -> None:
    take(page, address, "Strakes for the tender")
    page.goto(f"{address}/#/stock")
    page.get_by_role("link", name="L-32").click()
    expect(page.get_by_text("3 of 7 pieces")).to_be_visible()
    first = page.get_by_role("slider", name="Cut 1")
    box = first.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + 12
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 40, y, steps=4)
    page.mouse.up()
    expect(page.get_by_text("2 of 7 pieces")).to_be_visible()
    page.get_by_role("button", name="Lay them anew").click()
    expect(page.get_by_text("3 of 7 pieces")).to_be_visible()
    first.focus()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_text("2 of 7 pieces")).to_be_visible()
    page.get_by_role("button", name="Cut Strakes for the tender from it").click()
    expect(page.get_by_role("button", name="Free the job of it")).to_be_visible()
    assert serious(page) == []


def test_a_billet_that_moves_is_opened_and_planned_anew(page: Page, address: str) -> None:
    take(page, address, "Strakes for the tender")
    page.goto(f"{address}/#/stock")
    page.get_by_role("link", name="L-34").click()
    expect(page.get_by_text("open it in the middle")).to_be_visible()
    page.get_by_text("It is cut: how do both parts lie?").click()
    page.get_by_role("button", name="Keep both parts").click()
    expect(page.get_by_text("is missing; accepted: its bow now, 0 for none")).to_be_visible()
    page.get_by_label("Bow of the part with the marked face").fill("1.2")
    page.get_by_label("Bow of the other part").fill("0.8")
    page.get_by_role("button", name="Keep both parts").click()
    expect(page.get_by_role("heading", name="L-34/1,")).to_be_visible()
    expect(page.get_by_text("It has settled")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("open it in the middle")).to_be_visible()


def test_metal_is_mapped_and_stands_on_the_run_card(page: Page, address: str) -> None:
    job = take(page, address, "Knees from the ferry's beam")
    page.goto(f"{address}/#/stock")
    page.get_by_role("link", name=re.compile("^B-")).first.click()
    page.get_by_label("How far along").fill("1200")
    page.get_by_label("How deep").fill("50")
    page.get_by_role("button", name="Mark it").click()
    expect(page.get_by_text("nail from the marked face, 50 mm deep")).to_be_visible()
    assert serious(page) == []
    band = page.request.get(f"{address}/api/bands").json()
    meg = next(b for b in band if b["label"].startswith("M-0") and b["state"] == "rack")
    version = page.request.get(f"{address}/api/jobs/{job}").json()["version"]
    changed = {"version": version, "band_id": meg["id"]}
    assert page.request.patch(f"{address}/api/jobs/{job}", data=changed).ok
    page.goto(f"{address}/#/run/{job}")
    expect(
        page.get_by_text(re.compile("Metal in B-.*1130 mm|Metal in B-.*1125 mm"))
    ).to_be_visible()
    page.get_by_role("button", name="Nail ahead").click()
    page.get_by_role("button", name="It struck").click()
    expect(page.get_by_text("Look at every tooth and the weld")).to_be_visible()
    page.get_by_role("button", name="All teeth are there").click()
    expect(page.get_by_text("One strike noted, teeth all there.")).to_be_visible()
    assert serious(page) == []


def test_rings_and_circles_answer_as_they_are_typed(page: Page, address: str) -> None:
    page.goto(f"{address}/#/joinery")
    expect(page.get_by_text("Cannot tell: read the angle more closely.")).to_be_visible()
    page.get_by_label("Read to, degrees").fill("0.01")
    expect(page.get_by_text("It closes.")).to_be_visible()
    page.get_by_label("Side of the square blank").fill("3000")
    expect(page.get_by_text("Its corners would strike the column")).to_be_visible()
    page.get_by_label("Side of the square blank").fill("100")
    expect(page.get_by_text(re.compile("less than the circle"))).to_be_visible()
    assert serious(page) == []


def test_a_cut_list_takes_the_billets_of_the_rack(page: Page, address: str) -> None:
    take(page, address, "Strakes for the tender")
    page.goto(f"{address}/#/cutlist")
    page.get_by_role("button", name="Take them from the rack").click()
    expect(page.get_by_role("img", name=re.compile("^Billet L-"))).not_to_have_count(0)
    assert serious(page) == []
