"""Nothing written down is lost: two tabs, a server that is away, two hands, a form that is left."""

import re

from playwright.sync_api import Browser, Page, Route, expect

from tests.browser.conftest import CONTEXT


def open_run(page: Page, address: str) -> int:
    """The run page of a job that has a saw and a band; the job."""
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Garboards for the ferry")
    page.goto(f"{address}/#/run/{job['id']}")
    expect(page.get_by_role("heading", name="Run Garboards")).to_be_visible()
    return int(job["id"])


def pieces_of(page: Page, address: str, job: int) -> int:
    return int(page.request.get(f"{address}/api/jobs/{job}").json()["done_pieces"])


def test_two_tabs_written_in_while_the_server_is_away_send_each_run_once(
    page: Page, address: str
) -> None:
    other = page.context.new_page()
    sent: list[str] = []
    for tab in (page, other):
        tab.route("**/api/runs", lambda route: route.abort())
    job = open_run(page, address)
    open_run(other, address)
    before = pieces_of(page, address, job)
    for tab in (page, other):
        tab.get_by_label("Minutes taken").fill("4")
        tab.get_by_role("button", name="Log 1 piece").dblclick()
    expect(page.get_by_role("link", name="2 not sent")).to_be_visible()
    expect(other.get_by_role("link", name="2 not sent")).to_be_visible()

    def let_through(route: Route) -> None:
        sent.append(route.request.post_data or "")
        route.continue_()

    for tab in (page, other):
        tab.unroute("**/api/runs")
        tab.route("**/api/runs", let_through)
    page.goto(f"{address}/#/waiting")  # they are sent by themselves once it answers
    expect(page.get_by_text("the shop has every run")).to_be_visible()
    assert pieces_of(page, address, job) == before + 2
    keys = re.findall(r'"client_key":"(\w+)"', "".join(sent))
    assert len(set(keys)) == 2


def test_a_login_page_is_no_refusal_and_a_refused_run_is_put_right(
    page: Page, address: str
) -> None:
    job = open_run(page, address)
    before = pieces_of(page, address, job)
    page.route(
        "**/api/runs",
        lambda route: route.fulfill(status=404, content_type="text/html", body="Log in"),
    )
    page.get_by_label("Minutes taken").fill("4")
    page.get_by_role("button", name="Log 1 piece").click()
    expect(page.get_by_text("1 run is kept here until the server answers.")).to_be_visible()
    page.goto(f"{address}/#/waiting")
    # Held while it is put right: no round of the outbox sends it from under the hands.
    page.get_by_label("Minutes taken").fill("0.001")
    page.unroute("**/api/runs")
    page.get_by_role("button", name="Send it now").click()
    expect(page.get_by_text(re.compile("Not taken: .*accepted"))).to_be_visible()
    page.get_by_label("Minutes taken").fill("4")
    page.get_by_role("button", name="Send it now").click()
    expect(page.get_by_text("the shop has every run")).to_be_visible()
    assert pieces_of(page, address, job) == before + 1


def test_two_hands_on_one_band_are_shown_both(page: Page, browser: Browser, address: str) -> None:
    page.goto(f"{address}/#/rack/3")
    page.get_by_role("button", name="Edit", exact=True).click()
    page.get_by_label("Place").fill("mine")
    theirs = browser.new_context(**CONTEXT).new_page()
    theirs.goto(f"{address}/#/rack/3")
    theirs.get_by_role("button", name="Edit", exact=True).click()
    theirs.get_by_label("Place").fill("theirs")
    theirs.get_by_role("button", name="Save band").click()
    expect(theirs.get_by_role("button", name="Save band")).to_be_hidden()
    theirs.context.close()
    page.get_by_role("button", name="Save band").click()
    expect(page.get_by_role("row", name=re.compile("place .* theirs mine"))).to_be_visible()
    page.get_by_role("button", name="Go on with mine").click()
    page.get_by_role("button", name="Save band").click()
    expect(page.get_by_role("button", name="Save band")).to_be_hidden()
    page.goto(f"{address}/#/changes/band/3")
    expect(page.get_by_text("place theirs → mine")).to_be_visible()
    page.get_by_role("button", name="Undo").first.click()
    expect(page.get_by_text("Taken back.")).to_be_visible()
    assert page.request.get(f"{address}/api/bands/3").json()["band"]["place"] == "theirs"


def test_a_form_that_is_left_is_gone_on_with(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    page.get_by_role("button", name="Add a band").click()
    page.get_by_text("Details", exact=True).click()
    page.get_by_label("Label", exact=True).fill("Z-90")
    page.goto(f"{address}/#/shop")
    expect(page.get_by_text("A new band is not saved.")).to_be_visible()
    page.reload()
    page.get_by_role("link", name="1 not saved").click()
    page.get_by_role("link", name="Go on with it").click()
    expect(page.get_by_label("Label", exact=True)).to_have_value("Z-90")
    page.get_by_role("button", name="Cancel").click()
    expect(page.get_by_role("link", name="1 not saved")).to_be_hidden()
