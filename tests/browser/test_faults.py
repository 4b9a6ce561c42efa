"""A trouble by hand: from two taps to its cause, through a stop, by keys, and by ear."""

import io
import re
from pathlib import Path

import soundfile
from playwright.sync_api import Page, expect

from jade_ribbon.core.simulation.sounds import RATE_HZ, RunningSaw, sound_of
from tests.browser.conftest import serious

SAW = "Shop saw 400"


def begin(page: Page, address: str, *signs: str) -> None:
    page.goto(f"{address}/#/faults")
    for sign in signs:
        page.get_by_role("button", name=sign, exact=True).click()
    page.get_by_label(re.compile("^Saw")).first.select_option(label=SAW)
    page.get_by_role("button", name="Find the cause").click()
    expect(page.get_by_role("heading", name="Most likely")).to_be_visible()


def bars(page: Page) -> list[str]:
    """The three causes with their words, as they stand."""
    return (
        page.get_by_role("region", name="What it most likely is")
        .locator("ol > li > button")
        .all_inner_texts()
    )


def test_two_taps_answers_remedy_and_it_went(page: Page, address: str) -> None:
    begin(page, address, "Barrelled face", "Hard to push")
    first = bars(page)
    assert len(first) == 3
    page.get_by_role("button", name="crept up over hours").click()
    page.get_by_role("button", name="One check more instead").click()
    expect(page.get_by_text("Look at a hand's length of teeth").first).to_be_visible()
    assert bars(page) != first, "each answer moves the bars"
    page.get_by_role("button", name="rounded white line, scrap slides").click()
    remedy = page.get_by_role("region", name="Remedy")
    expect(remedy).to_contain_text("Good enough to act")
    expect(remedy).to_contain_text("Should go with it: barrelled face, hard to push")
    assert serious(page) == []
    answered = bars(page)
    page.get_by_role("button", name="Back one step").click()
    expect(page.get_by_text("The way so far: 1")).to_be_visible()
    assert bars(page) != answered, "and taking it back moves them back"
    remedy.get_by_label("Minutes it took").fill("14")
    remedy.get_by_role("button", name="Done").click()
    expect(page.get_by_role("heading", name="Dull edge: mended. Did it go?")).to_be_visible()
    page.get_by_role("button", name="It went").click()
    expect(page.get_by_label("Dull edge")).to_be_checked()
    page.get_by_label("Stock spoiled").fill("12")
    page.get_by_role("button", name="Close it", exact=True).click()
    expect(page.get_by_text("It was: Dull edge.")).to_be_visible()
    expect(page.get_by_role("button", name="Print this story")).to_be_visible()
    page.goto(f"{address}/#/faults/book")
    expect(page.get_by_role("cell", name="Dull edge").first).to_be_visible()


def test_a_stop_takes_over_the_screen_till_somebody_says_that_the_saw_stands(
    page: Page, address: str
) -> None:
    page.goto(f"{address}/#/faults")
    page.get_by_role("button", name="Sparks fly").click()
    page.get_by_role("button", name="Find the cause").click()
    stop = page.get_by_role("alert", name="Stop")
    expect(stop).to_contain_text("Stop and isolate")
    expect(page.get_by_role("heading", name="Most likely")).to_have_count(0)
    expect(stop.get_by_role("button", name="It stands, isolated")).to_be_disabled()
    assert serious(page) == []
    stop.get_by_label("Who stopped and isolated it").select_option("Odda")
    stop.get_by_role("button", name="It stands, isolated").click()
    expect(page.get_by_role("heading", name="Check now")).to_be_visible()
    assert "the saw runs:" not in page.get_by_role("region", name="Now").inner_text()
    page.get_by_text("The way so far: 1").click()
    expect(page.get_by_text("Stop acknowledged: Sparks fly.")).to_be_visible()


def test_a_measured_check_marks_its_answer(page: Page, address: str) -> None:
    told = {"saw_id": 2, "symptoms": {"tick": "clear"}}
    url = f"{address}/api/faults"
    asking = page.request.post(url, data=told).json()
    while asking["check"]["key"] != "band_straight":
        passed = {"check": asking["check"]["key"], "outcome": "skip"}
        asking = page.request.post(f"{url}/{asking['id']}/answer", data=passed).json()
    page.goto(f"{address}/#/faults/{asking['id']}")
    tool = page.get_by_role("form", name="Measure it")
    tool.get_by_label("Thickness at the weld").fill("0.95")
    tool.get_by_label("beside it").fill("0.8")
    tool.get_by_role("button", name="Which is it?").click()
    expect(tool.get_by_role("status")).to_contain_text("The weld stands 0.15 mm over.")
    answer = page.get_by_role("button", name=re.compile("weld thick or stepped"))
    expect(answer).to_have_attribute("data-measured", "true")
    answer.click()
    expect(page.get_by_role("alert", name="Stop")).to_contain_text("Weld proud or stepped")


def test_it_is_worked_by_keys_alone(page: Page, address: str) -> None:
    page.goto(f"{address}/#/plan")
    page.locator("body").press("7")
    expect(page.get_by_role("heading", name="What do you see, hear or feel?")).to_be_visible()
    page.get_by_role("button", name="Cut leans").press("Enter")
    page.get_by_role("button", name="Find the cause").press("Enter")
    expect(page.get_by_role("heading", name="Check now")).to_be_visible()
    page.get_by_role("button", name="Could not tell").press("Enter")
    expect(page.get_by_text("The way so far: 1")).to_be_visible()
    page.get_by_role("button", name="It stopped by itself").press("Enter")
    page.get_by_role("button", name="Close it: it went by itself").press("Enter")
    expect(page.get_by_text("Closed without a cause found.")).to_be_visible()


def test_run_and_the_card_lead_here_and_the_run_asks_whether_it_went(
    page: Page, address: str
) -> None:
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Strips for the canoe")
    page.goto(f"{address}/#/plan/{job['id']}")
    expect(page.get_by_role("region", name="The band")).to_be_visible()
    page.goto(f"{address}/#/run")
    asked = page.get_by_role("group", name="Did it go?")
    expect(asked).to_contain_text("drifts one way")
    page.get_by_role("button", name="washboard").click()
    page.get_by_role("link", name="Find the cause").click()
    told = page.get_by_role("button", name="Washboard ridges", exact=True)
    expect(told).to_have_attribute("aria-pressed", "true")
    page.go_back()
    asked.get_by_role("button", name="It went").click()
    expect(asked).to_have_count(0)


def test_the_ear_names_what_grew_louder(page: Page, address: str, tmp_path: Path) -> None:
    saw = next(s for s in page.request.get(f"{address}/api/saws").json() if s["saw"]["name"] == SAW)
    bands = page.request.get(f"{address}/api/bands").json()
    band = next(b for b in bands if b["id"] == saw["mounted_band_id"])
    speed = saw.get("speed_set_m_s")
    page.goto(f"{address}/#/faults/ear")
    page.get_by_label(re.compile("^Saw")).first.select_option(label=SAW)
    used = speed or saw["saw"]["drive"]["speeds_m_s"][0]
    page.get_by_label("Band speed").fill(str(used))
    pitch = 25.4 / ((band["tpi_lo"] + band["tpi_hi"]) / 2)
    running = RunningSaw(used, band["length_mm"], pitch, saw["saw"]["wheel_diameters_mm"][0])
    stream = io.BytesIO()
    sound = sound_of("tick", running, 11)
    soundfile.write(stream, sound, RATE_HZ, subtype="PCM_16", format="WAV")
    page.get_by_label("A recording").set_input_files(
        {"name": "tick.wav", "mimeType": "audio/wav", "buffer": stream.getvalue()}
    )
    heard = page.get_by_role("region", name="Heard")
    expect(heard).to_contain_text("the weld, once a turn of the band")
    expect(heard).to_contain_text("Louder by")
    heard.get_by_role("link", name="Find the cause").click()
    told = page.get_by_role("button", name="Tick each turn", exact=True)
    expect(told).to_have_attribute("aria-pressed", "true")


def test_an_instrument_that_is_not_here_is_said_to_be_so(page: Page, address: str) -> None:
    page.goto(f"{address}/#/faults/kit")
    wax = page.get_by_role("button", name="wax")
    expect(wax).to_have_attribute("aria-pressed", "true")
    wax.click()
    expect(wax).to_contain_text("not here")
    page.reload()
    expect(page.get_by_role("button", name="wax")).to_have_attribute("aria-pressed", "false")
