"""A barrelled board found on the simulated saw, the feed eased, the next one better."""

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import serious


def test_a_barrelled_board_is_found_and_the_next_one_better(page: Page, address: str) -> None:
    settings = page.request.get(f"{address}/api/setting-up").json()
    chosen = {**settings["instruments"], "caliper": "simulated"}
    body = {"version": settings["version"], "instruments": chosen}
    assert page.request.patch(f"{address}/api/setting-up", data=body).ok
    jobs = page.request.get(f"{address}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Garboards for the ferry")
    run = {"job_id": job["id"], "saw_id": job["saw_id"], "band_id": job["band_id"]}
    barrels = []
    for number, feed in enumerate((14.0, 0.8)):
        cut = {"client_key": f"inspected-{number}", "pieces": 1, "length_mm": job["length_mm"]}
        logged = page.request.post(
            f"{address}/api/runs", data={**run, **cut, "feed_m_min": feed, "confirmed": True}
        )
        assert logged.ok, logged.text()
        page.goto(f"{address}/#/inspect/{job['id']}")
        page.reload()
        expect(page.get_by_role("heading", name="Inspect Garboards")).to_be_visible()
        for point in range(9):
            page.get_by_role("button", name="Read with the caliper").click()
            expect(page.get_by_role("button", name=re.compile(r"^Point .*: \d"))).to_have_count(
                point + 1
            )
        page.get_by_role("button", name="Keep the face").click()
        expect(page.get_by_text("The face is kept.")).to_be_visible()
        assert serious(page) == []
        face = page.request.get(f"{address}/api/jobs/{job['id']}/faces").json()["faces"][0]
        parts = {p["key"]: p for p in face["face"]["parts"]}
        barrels.append(parts["barrel"]["amount_mm"])
    assert abs(barrels[1]) < abs(barrels[0]), barrels
    expect(page.get_by_text("Hollow: the face before")).to_be_visible()
