"""The whole path, as operators walk it: with the keyboard alone, and with taps on a phone."""

import re

from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import CONTEXT


def api(page: Page, address: str, path: str) -> object:
    return page.request.get(f"{address}{path}").json()


def open_job(page: Page, address: str, name: str) -> int:
    jobs = page.request.get(f"{address}/api/jobs").json()
    found = next(j for j in jobs if j["name"] == name)
    page.goto(f"{address}/#/plan/{found['id']}")
    expect(page.get_by_role("region", name="The band")).to_be_visible()
    return int(found["id"])


def tab_to(page: Page, name: str | re.Pattern[str], role: str = "button") -> None:
    """Press Tab until the named control has the focus."""
    exact = isinstance(name, str)
    target = page.get_by_role(role, name=name, exact=exact).first  # type: ignore[arg-type]
    target.wait_for()
    for _ in range(120):
        if target.evaluate("e => e === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"{name} cannot be reached with Tab")


def let_go(page: Page, address: str) -> None:
    """Close the troubles that are open: a saw with one is not ready."""
    for trouble in page.request.get(f"{address}/api/faults").json()["troubles"]:
        if trouble["state"] == "open":
            url = f"{address}/api/faults/{trouble['id']}/close"
            assert page.request.post(url, data={"causes": []}).ok


def test_plan_to_wear_with_the_keyboard_alone(page: Page, address: str) -> None:
    let_go(page, address)
    job_id = open_job(page, address, "Strakes for the tender")
    before = page.get_by_role("region", name="The band").inner_text()
    tab_to(page, "185 mm")
    page.keyboard.press("Enter")
    field = page.get_by_label("Height in the cut")
    expect(field).to_be_focused()
    page.keyboard.press("Control+a")
    page.keyboard.type("120")
    expect(page.get_by_role("button", name="120 mm")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="120 mm")).to_be_focused()
    expect(page.get_by_role("region", name="The band")).not_to_have_text(before)
    tab_to(page, "Feed", "slider")
    was = page.get_by_role("slider", name="Feed").get_attribute("aria-valuetext")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("slider", name="Feed")).not_to_have_attribute(
        "aria-valuetext", was or ""
    )
    tab_to(page, "Use it: set up")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/setup/"))
    expect(page.get_by_role("button", name=re.compile("Isolate"))).to_be_visible()
    steps = page.get_by_role("list", name="Steps").get_by_role("listitem").count()
    assert steps >= 15
    told = page.get_by_text(re.compile(rf"^\d+ of {steps} steps"))
    for _ in range(steps):
        tab_to(page, "Done")
        done = told.inner_text()
        page.keyboard.press("Enter")
        expect(told).not_to_have_text(done)
        page.evaluate("document.activeElement.blur(); window.scrollTo(0, 0)")
    expect(page.get_by_text("Ready by what you looked at. Not measured:")).to_be_visible()
    tab_to(page, "Ready: go to Run")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/run"))
    tab_to(page, "One piece more")
    for _ in range(6):
        page.keyboard.press("Enter")
    tab_to(page, "Log 7 pieces")
    page.keyboard.press("Enter")
    tab_to(page, re.compile("^As planned"))
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile("also lasts the next such job"))).to_be_visible()
    job = page.request.get(f"{address}/api/jobs/{job_id}").json()
    assert (job["done_pieces"], job["height_mm"], job["state"]) == (7, 120, "running")
    page.keyboard.press("Escape")
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("5")
    expect(page.get_by_role("heading", name="Rack")).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type(job["band_label"])
    hits = page.get_by_role("listbox", name="Found").get_by_role("option")
    expect(hits.first).to_contain_text(job["band_label"])
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name=job["band_label"], exact=True)).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^Life of"))).to_be_visible()


def test_a_phone_with_taps_and_a_lost_connection(browser: Browser, address: str) -> None:
    phone = {**CONTEXT, "viewport": {"width": 390, "height": 844}, "has_touch": True}
    context = browser.new_context(**phone)
    page = context.new_page()
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Garboards for the ferry")
    page.goto(f"{address}/#/setup/{job['setup_id']}")
    told = page.get_by_text(re.compile(r"^\d+ of \d+ steps"))
    steps = page.get_by_role("article")
    while page.get_by_role("button", name="Ready: go to Run").count() == 0:
        before, step = told.inner_text(), steps.first.get_attribute("aria-label")
        page.get_by_role("button", name="Done", exact=True).tap()
        expect(told).not_to_have_text(before)
        # The next step stands there, or there is none: else the same one would be done again.
        following = page.locator(f'article:not([aria-label="{step}"])')
        expect(
            page.get_by_role("button", name="Ready: go to Run").or_(following).first
        ).to_be_visible()
    page.get_by_role("button", name="Ready: go to Run").tap()
    expect(page.get_by_role("button", name="Log 1 piece")).to_be_visible()
    page.wait_for_load_state("networkidle")
    context.set_offline(True)
    page.get_by_role("button", name="One piece more").tap()
    page.get_by_role("button", name="hard push").tap()
    page.get_by_role("button", name="Log 2 pieces").tap()
    page.get_by_role("button", name=re.compile("^As planned")).tap()
    expect(page.get_by_text("1 run is kept here until the server answers.")).to_be_visible()
    assert page.request.get(f"{address}/api/jobs/{job['id']}").json()["done_pieces"] == 0
    context.set_offline(False)
    expect(page.get_by_text(re.compile("also lasts the next such job"))).to_be_visible()
    assert page.request.get(f"{address}/api/jobs/{job['id']}").json()["done_pieces"] == 2
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390
    page.get_by_role("link", name="Plan").last.tap()
    expect(page.get_by_role("region", name="The band")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    context.close()
