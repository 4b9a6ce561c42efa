"""The rack by hand: a band from its label to its scrapping, a spreadsheet in, money to its runs."""

import io
import re
from collections.abc import Iterator
from pathlib import Path

import openpyxl
import pypdfium2  # type: ignore[import-untyped]
import pytest
from PIL import Image
from playwright.sync_api import Browser, Page, Playwright, expect

from jade_ribbon.demo.serving import CHROMIUM
from tests.browser.conftest import CONTEXT, serious

BAND = 5


@pytest.fixture
def camera(driver: Playwright, page: Page, address: str, tmp_path: Path) -> Iterator[Browser]:
    """A browser whose camera sees the printed label of a band."""
    sheet = page.request.get(f"{address}/labels.pdf?bands={BAND}&kind=roll-89")
    label = pypdfium2.PdfDocument(sheet.body())[0].render(scale=160 / 72).to_pil()
    frame = Image.new("RGB", (640, 480), "grey")
    frame.paste(label, (40, 100))
    seen = io.BytesIO()
    frame.save(seen, "JPEG", quality=90)
    film = tmp_path / "label.mjpeg"
    film.write_bytes(seen.getvalue() * 4)
    fakes = ["--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream"]
    browser = driver.chromium.launch(
        executable_path=CHROMIUM, args=[*fakes, f"--use-file-for-fake-video-capture={film}"]
    )
    yield browser
    browser.close()


def test_a_band_from_its_label_to_its_scrapping(camera: Browser, page: Page, address: str) -> None:
    band = page.request.get(f"{address}/api/bands/{BAND}").json()["band"]
    if band["mounted_saw_id"] is not None:
        page.request.post(
            f"{address}/api/saws/{band['mounted_saw_id']}/mount", data={"band_id": None}
        )
    context = camera.new_context(**CONTEXT, permissions=["camera"])
    phone = context.new_page()
    phone.set_viewport_size({"width": 390, "height": 844})
    phone.goto(f"{address}/#/scan")
    phone.get_by_role("button", name="Open the camera").click()
    scanned = phone.get_by_role("region", name="The band scanned")
    expect(scanned).to_contain_text(band["label"])
    assert serious(phone) == []
    scanned.get_by_role("button", name="1/2 left").click()
    expect(phone.get_by_text("Judged.")).to_be_visible()
    kept = page.request.get(f"{address}/api/bands/{BAND}").json()
    assert kept["band"]["dullness"] == 0.5 and kept["events"][-1]["detail"] == "1/2 left"
    scanned.get_by_label("Note").fill("hangs by the door")
    scanned.get_by_role("button", name="Keep it").click()
    expect(phone.get_by_text("Noted.")).to_be_visible()
    context.close()

    page.goto(f"{address}/#/rack/{BAND}")
    expect(page.get_by_role("heading", name=band["label"])).to_be_visible()
    page.get_by_text("How dull, and how that is known").click()
    evidence = page.get_by_role("region", name="How keen it is, and by what")
    expect(evidence).to_contain_text("a look at it")
    page.get_by_text("Look it over").click()
    page.get_by_label("Length", exact=True).fill(str(band["length_mm"] + 80))
    over = page.get_by_role("group").filter(has_text="Set of ten teeth")
    over.get_by_role("button", name="Record").click()
    expect(page.get_by_text(f"{band['label']}: claim it.")).to_be_visible()
    page.get_by_text("Note something").click()
    page.get_by_role("button", name="Sharpened", exact=True).click()
    page.get_by_label("How dull it was").fill("0.8")
    page.get_by_label("Minutes", exact=True).fill("25")
    page.get_by_label("Ground").select_option("face")
    what = page.get_by_role("region", name="What happened to it")
    what.get_by_role("button", name="Record").click()
    expect(page.get_by_text("face ground, 25 min")).to_be_visible()
    page.get_by_role("button", name="Scrap it", exact=True).first.click()
    what.get_by_label("Why").select_option("worn")
    what.get_by_role("button", name="Record").click()
    expect(page.get_by_role("region", name="What next")).to_contain_text("Scrapped.")
    gone = page.request.get(f"{address}/api/bands/{BAND}").json()["band"]
    assert (gone["state"], gone["sharpenings"]) == ("scrapped", band["sharpenings"] + 1)


def test_a_spreadsheet_comes_in(page: Page, address: str, tmp_path: Path) -> None:
    book = openpyxl.Workbook()
    sheet = book.active
    assert sheet is not None
    for row in (
        ["Tag", "Width (in)", "TPI", "Length mm"],
        ["Z-1", "3/4", 3, 3360],
        ["Z-2", 1, 2, 3360],
    ):
        sheet.append(row)
    book.save(tmp_path / "bands.xlsx")
    page.goto(f"{address}/#/rack/list")
    page.get_by_label("or a file").set_input_files(tmp_path / "bands.xlsx")
    page.get_by_role("button", name="Bring in 2 bands").click()
    expect(page.get_by_text("2 bands are on the rack.")).to_be_visible()
    bands = {b["label"]: b for b in page.request.get(f"{address}/api/bands").json()}
    assert bands["Z-1"]["width_mm"] == pytest.approx(19.05)


def test_a_month_s_money_opens_to_its_runs(page: Page, address: str) -> None:
    page.goto(f"{address}/#/money")
    rows = page.get_by_role("row").filter(has=page.get_by_role("button"))
    expect(rows.first).to_be_visible()
    month = rows.nth(1)
    total = month.get_by_role("cell").nth(3).inner_text()
    month.get_by_role("button").click()
    opened = page.get_by_role("row").filter(has_text=re.compile(r"\d+ runs,"))
    expect(opened).to_contain_text(total)
    runs = opened.get_by_role("listitem")
    each = [float(line.locator("span").last.inner_text()) for line in runs.all()]
    assert sum(each) == pytest.approx(float(total), abs=0.01 * len(each) + 0.01)
    page.get_by_role("button", name="person", exact=True).click()
    expect(page.get_by_role("columnheader", name="person")).to_be_visible()
    assert serious(page) == []


def test_a_band_is_made_from_a_coil(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack/made")
    page.get_by_role("button", name="Add a coil").click()
    page.get_by_role("button", name="Keep the coil").click()
    page.get_by_role("button", name="Make a band").last.click()
    page.get_by_label("Label", exact=True).fill("H-03")
    page.get_by_label("Length, the tensioner mid-way").fill("3360")
    page.get_by_label("Procedure of the weld").fill("clamp 3, 4 pulses")
    page.get_by_role("button", name="Begin").click()
    making = page.get_by_role("region", name="Making H-03")
    for step in ("Cut", "Square", "Weld", "Anneal", "Grind", "Bend test", "Check"):
        making.get_by_role("button", name=f"{step}: done").click()
    making.get_by_role("button", name="Put it on the rack").click()
    page.get_by_role("link", name="H-03").click()
    expect(page.get_by_text("made here", exact=True)).to_be_visible()


def test_upkeep_found_wrong_is_said_where_the_saw_stands(page: Page, address: str) -> None:
    page.goto(f"{address}/#/shop/saws/1/upkeep")
    page.get_by_role("button", name="Brake, switch and stop").click()
    page.get_by_label("What is wrong").fill("runs down for 40 s")
    with page.expect_response(re.compile(r"/api/saws/1/upkeep$")) as answered:
        page.get_by_role("button", name="Found wrong: the saw stands").click()
    assert answered.value.ok
    page.goto(f"{address}/#/shop/saws/1/stand")
    stopped = "A defect stops it: Brake, switch and stop: runs down for 40 s"
    expect(page.get_by_text(stopped)).to_be_visible()
    expect(page.get_by_role("region", name="Upkeep due")).to_contain_text("found wrong")


def test_records_go_out_and_come_in_unchanged(page: Page, address: str, tmp_path: Path) -> None:
    page.goto(f"{address}/#/shop/files")
    with page.expect_download() as loading:
        page.get_by_role("link", name="Bands", exact=True).click()
    loading.value.save_as(tmp_path / "bands.csv")
    page.get_by_label("The file").set_input_files(tmp_path / "bands.csv")
    expect(page.get_by_role("status").filter(has_text="0 to add, 0 to change")).to_be_visible()
