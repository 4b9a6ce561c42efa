"""With the worker installed: files are files, one visit is enough for the saw, answers get lost.

The first visit and a later one; a network that is gone, hangs, or loses an answer on its way back.
"""

import json
import re
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Route, expect

from tests.browser.conftest import CONTEXT
from tests.browser.test_network import Shop, join, phone, shop  # noqa: F401 - fixtures

CONTROLLED = "() => navigator.serviceWorker.controller !== null"
KEPT = "caches.open('answers').then((c) => c.keys()).then((k) => k.map((r) => r.url))"


@pytest.fixture
def context(browser: Browser) -> Iterator[BrowserContext]:
    made = browser.new_context(**CONTEXT | {"service_workers": "allow"}, accept_downloads=True)
    made.set_default_timeout(20_000)
    yield made
    made.close()


def first_visit(context: BrowserContext, address: str, path: str = "") -> Page:
    """A page opened once, until the worker has it and keeps what the saw needs."""
    page = context.new_page()
    page.goto(f"{address}/{path}")
    page.wait_for_function(CONTROLLED)
    return page


def job_of(page: Page, address: str, name: str = "Garboards for the ferry") -> dict[str, Any]:
    jobs = page.request.get(f"{address}/api/jobs").json()
    found: dict[str, Any] = next(j for j in jobs if j["name"] == name)
    return found


def test_files_are_downloaded_and_do_not_open_the_application(
    context: BrowserContext, address: str
) -> None:
    page = first_visit(context, address)
    for visit in ("first", "later"):
        page.goto(f"{address}/#/shop/files")
        with page.expect_download() as came:
            page.get_by_role("link", name="Runs", exact=True).first.click()
        head = Path(came.value.path()).read_text().split("\r\n")[0]
        assert head.startswith("key,at,band"), visit
        page.goto(f"{address}/#/money")
        with page.expect_download() as came:
            page.get_by_role("link", name=re.compile("CSV")).first.click()
        assert Path(came.value.path()).read_text().startswith("group,runs"), visit
        answer = page.evaluate(
            "fetch('/labels.pdf?bands=1,2&kind=a4-24').then((r) => r.headers.get('content-type'))"
        )
        assert answer == "application/pdf"
        with page.expect_download() as came:
            page.evaluate(
                "Object.assign(document.createElement('a'),"
                " {href: '/labels.pdf?bands=1,2', download: ''}).click()"
            )
        assert Path(came.value.path()).read_bytes().startswith(b"%PDF"), visit
        page.reload()


def test_after_one_visit_the_saw_has_what_it_needs_without_a_network(
    context: BrowserContext, address: str
) -> None:
    job = job_of(context.new_page(), address)
    page = first_visit(context, address, f"#/plan/{job['id']}")
    expect(page.get_by_role("region", name="The band")).to_be_visible()
    wanted = [f"/api/jobs/{job['id']}/run", "/api/bands", "/api/shop", "/api/jobs"]
    page.wait_for_function(
        f"(wanted) => {KEPT}.then((urls) => wanted.every((w) => urls.some((u) => u.endsWith(w))))",
        arg=wanted,
    )
    context.set_offline(True)
    page.reload()
    expect(page.get_by_text("The shop’s machine does not answer.")).to_be_visible()
    assert "Invalid Date" not in page.locator("body").inner_text()
    page.goto(f"{address}/#/run/{job['id']}")
    expect(page.get_by_role("heading", name="Run Garboards")).to_be_visible()
    page.goto(f"{address}/#/rack")
    expect(page.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    page.goto(f"{address}/#/rack/17")
    expect(page.get_by_text("is not kept on this device").first).to_be_visible()
    context.set_offline(False)
    page.reload()
    expect(page.get_by_text("is not kept on this device")).to_have_count(0)


def losing_answers(page: Page, pattern: str) -> list[str]:
    """What is sent arrives, and its answer does not; the keys it was sent under."""
    keys: list[str] = []

    def lose(route: Route) -> None:
        keys.append(route.request.headers["idempotency-key"])
        route.fetch()
        route.abort()

    page.route(pattern, lose)
    return keys


def test_a_tap_whose_answer_is_lost_is_done_once(context: BrowserContext, address: str) -> None:
    page = first_visit(context, address)
    page.goto(f"{address}/#/rack/3")
    before = page.request.get(f"{address}/api/bands/3").json()["events"]
    keys = losing_answers(page, "**/api/bands/3/events")
    page.get_by_text("Note something").click()
    page.get_by_role("group", name="What happened").get_by_role(
        "button", name="Cleaned", exact=True
    ).click()
    page.get_by_role("button", name=re.compile("^Record")).click()
    expect(page.get_by_role("link", name="1 not sent")).to_be_visible()
    page.unroute("**/api/bands/3/events")
    page.goto(f"{address}/#/waiting")
    expect(page.get_by_text("Steps and events not sent")).to_be_hidden()
    after = page.request.get(f"{address}/api/bands/3").json()["events"]
    assert len(keys) >= 1 and len(after) == len(before) + 1


def test_a_network_that_hangs_blocks_no_tab(context: BrowserContext, address: str) -> None:
    one, two = context.new_page(), context.new_page()
    job = job_of(one, address)
    before = job["done_pieces"]
    for tab in (one, two):
        tab.route("**/api/runs", lambda route: None)  # it neither answers nor refuses
        tab.goto(f"{address}/#/run/{job['id']}")
        tab.get_by_label("Minutes taken").fill("4")
    for tab in (one, two):
        tab.get_by_role("button", name="Log 1 piece").click()
        expect(tab.get_by_text("Kept here; it is sent")).to_be_visible(timeout=3000)
    expect(two.get_by_role("link", name="2 not sent")).to_be_visible()
    for tab in (one, two):
        tab.unroute("**/api/runs", None)
    for tab in (one, two):
        tab.reload()
    expect(two.get_by_role("link", name=re.compile("not sent"))).to_be_hidden(timeout=45_000)
    assert job_of(one, address)["done_pieces"] == before + 2


def test_a_run_put_right_in_one_tab_and_sent_by_another_is_not_lost(
    context: BrowserContext, address: str
) -> None:
    one, two = context.new_page(), context.new_page()
    job = job_of(one, address)
    before = job["done_pieces"]
    for tab in (one, two):
        tab.route("**/api/runs", lambda route: route.abort())
    one.goto(f"{address}/#/run/{job['id']}")
    one.get_by_label("Minutes taken").fill("4")
    one.get_by_role("button", name="Log 1 piece").click()
    one.goto(f"{address}/#/waiting")
    two.goto(f"{address}/#/waiting")
    one.get_by_label("Pieces").fill(
        "2"
    )  # held: the other tab does not send it from under the hands
    two.unroute("**/api/runs")
    two.reload()
    two.wait_for_timeout(6000)
    expect(one.get_by_label("Pieces")).to_have_value("2")
    one.unroute("**/api/runs")
    one.get_by_role("button", name="Send it now").click()
    expect(one.get_by_text("the shop has every run")).to_be_visible()
    assert job_of(one, address)["done_pieces"] == before + 2


def test_a_run_whose_answer_was_lost_is_put_right_against_the_logged_one(
    context: BrowserContext, address: str
) -> None:
    page = context.new_page()
    job = job_of(page, address)
    before = job["done_pieces"]
    losing_answers(page, "**/api/runs")
    page.goto(f"{address}/#/run/{job['id']}")
    page.get_by_label("Minutes taken").fill("4")
    page.get_by_role("button", name="Log 1 piece").click()
    expect(page.get_by_text("Kept here; it is sent")).to_be_visible()
    page.goto(f"{address}/#/waiting")
    page.get_by_label("Pieces").fill("3")
    page.unroute("**/api/runs")
    page.get_by_role("button", name="Send it now").click()
    expect(page.get_by_text("This run is logged already").first).to_be_visible()
    expect(page.get_by_text("The shop has: 1 of")).to_be_visible()
    page.get_by_role("button", name="Put the logged run right").click()
    expect(page.get_by_text("the shop has every run")).to_be_visible()
    assert job_of(page, address)["done_pieces"] == before + 3


def test_leaving_a_new_band_keeps_nothing_and_says_nothing(
    context: BrowserContext, address: str
) -> None:
    page = first_visit(context, address, "#/rack")
    page.get_by_role("button", name="Add a band").click()
    page.get_by_text("Details", exact=True).click()
    page.get_by_label("Label", exact=True).fill("Z-91")
    page.get_by_label(re.compile("^Width")).first.fill("25")
    page.get_by_role("button", name="Cancel").click()
    expect(page.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    expect(page.get_by_text("is not saved")).to_have_count(0)
    expect(page.get_by_role("link", name="1 not saved")).to_have_count(0)


def test_a_phone_shut_out_without_a_network_is_told_and_emptied(
    phone: BrowserContext,  # noqa: F811
    page: Page,
    shop: Shop,  # noqa: F811
) -> None:
    device = phone.new_page()
    join(device, page, shop)
    device.wait_for_function(CONTROLLED)
    device.goto(f"{shop.there}/#/rack")
    expect(device.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    device.get_by_role("button", name="Add a band").click()
    device.get_by_text("Details", exact=True).click()
    device.get_by_label("Label", exact=True).fill("P-1")
    phone.set_offline(True)
    device.goto(f"{shop.there}/#/rack")
    device.reload()
    expect(device.get_by_text("The shop’s machine does not answer.")).to_be_visible()
    page.goto(f"{shop.here}/#/shop/network")
    page.get_by_role("button", name="Shut out").last.click()
    phone.set_offline(False)
    device.goto(f"{shop.there}/#/rack/radius")
    expect(device.get_by_role("heading", name="Join this shop")).to_be_visible()
    device.wait_for_function("caches.has('answers').then((has) => !has)")
    left = device.evaluate("JSON.stringify(Object.keys(localStorage))")
    assert [k for k in json.loads(left) if k.startswith("jade-ribbon.draft")] == []


def test_a_device_leaves_by_itself(
    phone: BrowserContext,  # noqa: F811
    page: Page,
    shop: Shop,  # noqa: F811
) -> None:
    device = phone.new_page()
    join(device, page, shop)
    device.get_by_role("link", name="Odda’s phone").click()
    device.get_by_role("button", name="Leave the shop").click()
    expect(device.get_by_role("heading", name="Join this shop")).to_be_visible()
    assert device.evaluate("fetch('/api/bands').then((r) => r.status)") == 401


def test_a_shop_whose_file_is_gone_says_so(
    browser: Browser, yard_file: Path, tmp_path: Path
) -> None:
    from tests.support.served import served

    file = Path(shutil.copy(yard_file, tmp_path / "yard.sqlite"))
    with served(file) as address:
        page = browser.new_context(**CONTEXT).new_page()
        page.goto(f"{address}/#/rack/3")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        file.unlink()
        page.goto(f"{address}/#/rack/4")
        expect(page.get_by_text("The shop's file is gone").first).to_be_visible()
        page.context.close()
