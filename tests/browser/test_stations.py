"""Each station's own ways: first run, errors beside their field, undo, units, drafts, files."""

import json
import re
from pathlib import Path

from playwright.sync_api import Page, Route, expect


def test_a_fault_stands_beside_its_field(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    page.get_by_role("button", name="Add a band").click()
    page.get_by_text("Details", exact=True).click()
    page.get_by_role("textbox", name="Label").fill("X-1")
    page.get_by_label("Width", exact=True).fill("4000")
    page.get_by_label("Thickness", exact=True).fill("abc")
    expect(page.get_by_text("“abc” cannot be read")).to_be_visible()
    page.get_by_role("button", name="Save band").click()
    expect(page.get_by_text("A field cannot be read: put it right, then save.")).to_be_visible()
    page.get_by_label("Thickness", exact=True).fill("0,9")
    page.get_by_role("button", name="Save band").click()
    expect(page.get_by_text("is out of range; accepted: at most 400")).to_be_visible()
    assert page.get_by_role("textbox", name="Label").input_value() == "X-1"


def test_a_form_left_for_another_record_is_that_record_s(page: Page, address: str) -> None:
    """Opened for one saw and left for another: the second is shown, and the second is saved."""
    saws = page.request.get(f"{address}/api/saws").json()
    page.goto(f"{address}/#/shop/saws/{saws[0]['id']}")
    name = page.get_by_label("Name", exact=True)
    expect(name).to_have_value(saws[0]["saw"]["name"])
    name.fill("Half typed")
    page.evaluate(f"location.hash = '#/shop/saws/{saws[1]['id']}'")
    expect(name).to_have_value(saws[1]["saw"]["name"])
    page.get_by_role("button", name="Save saw").click()
    expect(page.get_by_role("heading", name="Shop", exact=True)).to_be_visible()
    after = page.request.get(f"{address}/api/saws").json()
    assert [s["saw"]["name"] for s in after] == [s["saw"]["name"] for s in saws]


def test_a_band_being_edited_is_not_saved_over_another(page: Page, address: str) -> None:
    bands = page.request.get(f"{address}/api/bands").json()
    page.goto(f"{address}/#/rack/{bands[0]['id']}")
    page.get_by_role("button", name="Edit").click()
    page.get_by_role("textbox", name="Label").fill("Half typed")
    page.evaluate(f"location.hash = '#/rack/{bands[1]['id']}'")
    expect(page.get_by_role("heading", name=bands[1]["label"], exact=True)).to_be_visible()
    expect(page.get_by_role("button", name="Save band")).to_have_count(0)
    page.get_by_role("button", name="Edit").click()
    expect(page.get_by_role("textbox", name="Label")).to_have_value(bands[1]["label"])


def test_what_comes_late_moves_no_button_away(page: Page, address: str) -> None:
    """A slow server: the rack's buttons stand where they will stand before its bands come."""
    held: list[Route] = []
    page.route("**/api/bands", lambda route: held.append(route))
    page.goto(f"{address}/#/rack")
    add = page.get_by_role("button", name="Add a band")
    expect(page.get_by_text("Reading the rack")).to_be_visible()
    page.wait_for_timeout(300)
    before = add.bounding_box()
    held[0].continue_()
    expect(page.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    assert add.bounding_box() == before


def test_the_sentence_tells_what_the_saw_cannot_take(page: Page, address: str) -> None:
    page.goto(f"{address}/#/plan")
    page.get_by_role("button", name="185 mm").click()
    page.get_by_label("Height in the cut").fill("900")
    expect(page.get_by_role("alert").first).to_contain_text("does not go under the guides")


def test_deleting_can_be_undone(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    page.get_by_role("link", name=re.compile("^K-09")).click()
    page.get_by_role("button", name="Delete").click()
    expect(page.get_by_text("K-09 is deleted.")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name="K-09", exact=True)).to_be_visible()


def test_units_turn_over_with_one_key(page: Page, address: str) -> None:
    page.goto(f"{address}/#/plan")
    expect(page.get_by_role("region", name="The band")).to_contain_text("MPa")
    page.keyboard.press("u")
    expect(page.get_by_role("region", name="The band")).to_contain_text("psi")
    page.get_by_role("button", name=re.compile(r"^7\.2\d+ in$")).click()
    page.get_by_label("Height in the cut").fill("7 1/4")
    expect(page.get_by_role("button", name="7 1/4 in").first).to_be_visible()


def test_a_draft_survives_closing_the_page(page: Page, address: str) -> None:
    page.goto(f"{address}/#/plan")
    page.get_by_role("button", name="3600 mm").click()
    page.get_by_label("Length of each cut").fill("2345")
    expect(page.get_by_role("button", name="2345 mm")).to_be_visible()
    page.goto("about:blank")
    page.goto(f"{address}/#/plan")
    expect(page.get_by_role("button", name="2345 mm")).to_be_visible()


def test_a_figure_tells_its_reasons(page: Page, address: str) -> None:
    page.goto(f"{address}/#/plan")
    page.get_by_role("region", name="The band").get_by_role("button", name="tension").click()
    dialog = page.get_by_role("dialog", name="Tension")
    expect(dialog).to_contain_text("Reference table: steels")
    expect(dialog).to_contain_text("body width")
    page.keyboard.press("Escape")
    expect(dialog).to_be_hidden()


def test_house_rules_change_the_answer(page: Page, address: str) -> None:
    page.goto(f"{address}/#/plan")
    page.get_by_role("button", name="more", exact=True).click()
    page.get_by_role("button", name="house rules").click()
    page.get_by_label("Tension target").select_option("light")
    expect(page.get_by_role("button", name="house rules, 1 changed")).to_be_visible()


def test_a_job_file_is_read(page: Page, address: str, tmp_path: Path) -> None:
    jobs = page.request.get(f"{address}/api/jobs").json()
    document = page.request.get(f"{address}/api/jobs/{jobs[0]['id']}/file").json()
    document["cut"]["height_mm"] = 133
    file = tmp_path / "job.json"
    file.write_text(json.dumps(document))
    page.goto(f"{address}/#/jobs")
    page.get_by_label("Job file").set_input_files(file)
    expect(page.get_by_role("button", name="133 mm")).to_be_visible()
    file.write_text("{")
    page.goto(f"{address}/#/jobs")
    page.get_by_label("Job file").set_input_files(file)
    expect(page.get_by_text("is not a job file: it is not valid JSON")).to_be_visible()


def test_the_rack_sorts_and_filters(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    rows = page.locator("ul.bands li")
    everything = rows.count() if rows.first.is_visible() else 0
    page.get_by_label("Find on the rack").fill("hook silicon")
    expect(page.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    assert rows.count() > 0
    assert everything == 0 or rows.count() < everything
    page.get_by_label("Sort by").select_option("width")
    widths = [float(t.split("×")[0]) for t in page.locator("span.size").all_inner_texts()]
    assert widths == sorted(widths, reverse=True)


def test_ways_back_and_deep_links(page: Page, address: str) -> None:
    page.goto(f"{address}/#/shop")
    page.get_by_role("link", name=re.compile("^Iron Maud")).click()
    expect(page.get_by_label("Name")).to_have_value("Iron Maud")
    page.go_back()
    expect(page.get_by_role("heading", name="Shop", exact=True)).to_be_visible()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_contain_text("find anything")


def test_what_may_be_two_numbers_is_asked_about_and_the_answer_held_back(
    page: Page, address: str
) -> None:
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Strakes for the tender")
    page.goto(f"{address}/#/plan/{job['id']}")
    page.get_by_role("button", name="3600 mm").click()
    page.get_by_role("textbox", name="Length").fill("1,200")
    expect(page.get_by_text("may be either:")).to_be_visible()
    expect(
        page.get_by_text("What stands here still answers what was there before.")
    ).to_be_visible()
    page.get_by_role("button", name="1200 mm").click()
    expect(page.get_by_text("What stands here still")).to_be_hidden()
    page.get_by_role("textbox", name="Length").fill("8' 6\"")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="2591 mm")).to_be_visible()
