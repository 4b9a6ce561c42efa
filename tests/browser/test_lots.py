"""A lot of forty run with signs until the change is proposed; all of Run with the network down."""

from playwright.sync_api import Page, expect

from tests.browser.conftest import serious


def lot_of_forty(page: Page, address: str) -> int:
    """A lot of forty strakes with the band that Plan would take; the job."""
    jobs = page.request.get(f"{address}/api/jobs").json()
    known = next(j for j in jobs if j["name"] == "Strakes for the tender")
    copy = page.request.post(
        f"{address}/api/jobs/{known['id']}/duplicate", headers={"Content-Type": "application/json"}
    ).json()
    page.goto(f"{address}/#/plan/{copy['id']}")
    said = page.get_by_role("region", name="The band")
    expect(said).to_be_visible()
    label = said.get_by_role("link").first.inner_text()
    bands = page.request.get(f"{address}/api/bands").json()
    band = next(b for b in bands if b["label"] == label)
    changed = {"version": copy["version"], "count": 40, "band_id": band["id"]}
    answer = page.request.patch(f"{address}/api/jobs/{copy['id']}", data=changed)
    assert answer.ok, answer.text()
    return int(copy["id"])


def ready(page: Page) -> None:
    for name in ("Push stick", "Extraction", "In- and outfeed", "Isolator"):
        page.get_by_role("button", name=name).click()
    expect(page.get_by_text("Before the start: all four, for this lot")).to_be_visible()


def test_a_lot_of_forty_is_run_with_signs_until_the_change_is_proposed(
    page: Page, address: str
) -> None:
    job = lot_of_forty(page, address)
    band = page.request.get(f"{address}/api/jobs/{job}").json()["band_id"]
    judged = {"kind": "edge_judged", "value": 0.62, "detail": "looked at under a glass"}
    assert page.request.post(f"{address}/api/bands/{band}/events", data=judged).ok
    page.goto(f"{address}/#/run/{job}")
    ready(page)
    proposed = False
    for sitting in range(9):
        for _ in range(3):
            page.get_by_role("button", name="One piece more").click()
        if sitting > 0:
            for sign in ("burn", "hard push", "fuzz"):
                page.get_by_role("button", name=sign, exact=True).click()
        if sitting == 1:
            expect(page.get_by_text("Look into the dust box")).to_be_visible()
            expect(page.get_by_text("It makes the edge").first).to_be_visible()
        page.get_by_label("Minutes taken").fill("14.4")
        page.get_by_role("button", name="Log 4 pieces").click()
        expect(page.get_by_text(f"{4 * sitting + 4} done,")).to_be_visible()
        stands = page.request.get(f"{address}/api/jobs/{job}/run").json()["lot"]
        said = "Change the band now." if stands["go_on"]["better"] == "change" else "Go on"
        if not stands["blocked"]:
            expect(page.get_by_text(said).first).to_be_visible()
        if stands["blocked"] or stands["go_on"]["better"] == "change":
            proposed = True
            break
    assert proposed
    assert serious(page) == []


def test_all_of_run_works_with_the_network_down(page: Page, address: str) -> None:
    job = lot_of_forty(page, address)
    page.goto(f"{address}/#/run/{job}")
    expect(page.get_by_role("button", name="Nail ahead")).to_be_visible()
    expect(
        page.get_by_role("group", name="Did it go?")
    ).to_be_visible()  # comes last, moves the rest
    page.context.set_offline(True)
    ready(page)
    page.get_by_text("Pace, chips, stops, watts").click()
    page.get_by_role("button", name="dust").click()
    expect(page.get_by_text("The feed is enough for a chip")).to_be_visible()
    page.get_by_role("button", name="hard push").click()
    expect(page.get_by_text("Ease the feed to")).to_be_visible()
    page.get_by_role("button", name="Nail ahead").click()
    page.get_by_role("button", name="It struck").click()
    page.get_by_role("button", name="All teeth are there").click()
    page.get_by_text("The feed stopped").click()
    page.get_by_label("How far along the piece").fill("900")
    page.get_by_role("button", name="hands moved").click()
    page.get_by_label("Minutes taken").fill("3")
    page.get_by_role("button", name="Log 1 piece").click()
    expect(page.get_by_text("1 run is kept here until the server answers.")).to_be_visible()
    page.context.set_offline(False)
    page.goto(f"{address}/#/waiting")  # it is sent by itself once there is a network
    expect(page.get_by_text("the shop has every run")).to_be_visible()
    assert page.request.get(f"{address}/api/jobs/{job}").json()["done_pieces"] == 1
