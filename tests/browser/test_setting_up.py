"""Setting up as it is done at a saw: taps on a tablet through a restart, and a microphone."""

import re
from pathlib import Path

import numpy as np
import pytest
import soundfile
from playwright.sync_api import Browser, Page, Playwright, expect

from jade_ribbon.demo.serving import CHROMIUM, free_port
from tests.browser.conftest import CONTEXT, serious
from tests.support.plucks import RATE, pluck
from tests.support.served import served

TABLET = {**CONTEXT, "viewport": {"width": 768, "height": 1024}, "has_touch": True}


def ferry(page: Page, address: str) -> int:
    """The open card of the sample boatyard."""
    jobs = page.request.get(f"{address}/api/jobs").json()
    return int(next(j for j in jobs if j["name"] == "Garboards for the ferry")["setup_id"])


def tick_off(page: Page, until: str) -> list[str]:
    """Tap Done at step after step until one is shown; the steps done."""
    done = []
    while not page.get_by_role("article", name=re.compile(until)).is_visible():
        shown = page.get_by_role("article").get_attribute("aria-label") or ""
        page.get_by_role("button", name="Done", exact=True).tap()
        expect(page.get_by_role("article")).not_to_have_attribute("aria-label", shown)
        done.append(shown)
    return done


def first_half(page: Page, address: str, card: int) -> None:
    """Measure the tension and type what was found, but do not record it yet."""
    page.goto(f"{address}/#/setup/{card}")
    expect(page.get_by_role("article", name=re.compile("Tension"))).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 768
    page.get_by_role("button", name="strain gauge").tap()
    page.get_by_label("Stretch on the gauge").fill("92")
    page.get_by_role("button", name="What stress is it?").tap()
    expect(page.get_by_label("As left, stress")).to_have_value("190")
    page.get_by_label("As left, turns of the handle").fill("7.5")


def second_half(page: Page, address: str, card: int) -> None:
    """From tracking to a ready saw, the drift measured on the way."""
    page.goto(f"{address}/#/setup/{card}")
    done = tick_off(page, "Drift")
    assert len(done) == 8 and "Lower the guard" in done[1] and "Upper guides" in done[2]
    page.get_by_label("As left, off the line").fill("5")
    page.get_by_label("As left, over a run of").fill("300")
    page.get_by_role("button", name="What does it say?").tap()
    expect(page.get_by_text(re.compile("Far end of the fence, behind the band"))).to_be_visible()
    page.get_by_role("button", name="Done", exact=True).tap()
    expect(page.get_by_role("article", name=re.compile("Trial"))).to_be_visible()
    page.get_by_role("button", name="Done", exact=True).tap()
    expect(page.get_by_text("Ready by what you looked at. Not measured:")).to_be_visible()
    assert serious(page) == []
    page.get_by_role("button", name="Ready: go to Run").tap()
    expect(page).to_have_url(re.compile("/run"))


def test_a_set_up_by_taps_goes_on_after_a_restart(browser: Browser, yard_copy: Path) -> None:
    """Half of it, the server gone and back, the page closed and opened: nothing is lost."""
    port = free_port()
    context = browser.new_context(**TABLET)
    page = context.new_page()
    page.set_default_timeout(20_000)
    with served(yard_copy, port) as address:
        card = ferry(page, address)
        first_half(page, address, card)
    page.get_by_role("button", name="Done", exact=True).tap()
    expect(page.get_by_role("link", name="1 not sent")).to_be_visible()
    with served(yard_copy, port) as address:
        expect(page.get_by_role("link", name="1 not sent")).to_be_hidden()
        expect(page.get_by_role("article", name=re.compile("Track again"))).to_be_visible(
            timeout=20_000
        )
        page.get_by_role("list", name="Steps").get_by_role(
            "button", name=re.compile("Tension")
        ).tap()
        expect(page.get_by_text("turns of the handle: 1.5 more than last time")).to_be_visible()
        page.close()
        page = context.new_page()
        second_half(page, address, card)
        kept = page.request.get(f"{address}/api/setups/{card}").json()
        assert kept["finished_at"] and kept["steps"]["tension"]["means"] == "gauge"
        left = kept["steps"]["tension"]["left"]
        assert left == {"stress_MPa": pytest.approx(189.5, abs=0.05), "handle_turns": 7.5}
        saw = page.request.get(f"{address}/api/saws/{kept['saw_id']}").json()
        assert saw["tension_stress_MPa"] == pytest.approx(189.5, abs=0.05)
    context.close()


def test_the_microphone_hears_a_pluck_in_the_browser(
    driver: Playwright, address: str, tmp_path: Path
) -> None:
    """A fake microphone plays a strip plucked at 45 Hz every three seconds."""
    sound, samples = tmp_path / "pluck.wav", np.zeros(3 * RATE)
    strip = pluck(45.0, noise=0.004)
    samples[: strip.size] = strip
    soundfile.write(sound, samples, RATE, subtype="PCM_16")
    fakes = ["--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream"]
    browser = driver.chromium.launch(
        executable_path=CHROMIUM, args=[*fakes, f"--use-file-for-fake-audio-capture={sound}"]
    )
    context = browser.new_context(**CONTEXT, permissions=["microphone"])
    page = context.new_page()
    page.goto(f"{address}/#/setup/{ferry(page, address)}")
    page.get_by_role("list", name="Steps").get_by_role("button", name=re.compile("Tension")).click()
    page.get_by_role("button", name="note", exact=True).click()
    page.get_by_role("button", name="Listen", exact=True).click()
    heard = page.get_by_text(re.compile(r"^Heard"))
    expect(heard).to_be_visible(timeout=25_000)
    hertz = float(re.findall(r"[\d.]+", heard.inner_text())[0])
    assert hertz == pytest.approx(45.0, rel=0.01)
    expect(page.get_by_role("img", name=re.compile("Spectrum"))).to_be_visible()
    left = page.get_by_label("As left, stress")
    expect(left).not_to_have_value("")  # the stress is asked for once the note is heard
    assert float(left.input_value()) == pytest.approx(120, rel=0.05)
    browser.close()


def test_the_saw_as_it_stands_and_its_sheet(page: Page, address: str) -> None:
    page.goto(f"{address}/#/shop/saws/2/stand")
    expect(page.get_by_role("heading", name="Shop saw 400 as it stands")).to_be_visible()
    expect(page.get_by_text("slack: tension it before it is started")).to_be_visible()
    expect(page.get_by_text("Lower tyre worn hollow")).to_be_visible()
    page.get_by_label("What is wrong").fill("Door catch loose")
    page.get_by_label("it stops the saw").check()
    page.get_by_role("button", name="Note it").click()
    expect(page.get_by_text("Stops the saw: Door catch loose")).to_be_visible()
    page.get_by_role("button", name="Closed").last.click()
    expect(page.get_by_text("Stops the saw: Door catch loose")).to_have_count(0)
    sheet = page.request.get(f"{address}/setups/{ferry(page, address)}.pdf")
    assert sheet.status == 200 and sheet.body().startswith(b"%PDF")
