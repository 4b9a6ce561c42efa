"""Spares, coils and bands made here, prices asked, labels that a camera reads."""

from datetime import timedelta
from typing import Any

import pypdfium2  # type: ignore[import-untyped]
import pytest
import zxingcpp
from flask.testing import FlaskClient

from jade_ribbon.formats.printed.labels import KINDS
from jade_ribbon.services.clock import now
from jade_ribbon.services.rack.band_types import own_type
from jade_ribbon.store.models import BandEventRow, BandRow, BandTypeRow
from tests.support.shop import BAND

COIL = {k: v for k, v in BAND.items() if k not in ("label", "length_mm")} | {
    "left_mm": 20_000,
    "price_per_m": 6.0,
}
STEPS = ("cut", "square", "weld", "anneal", "grind", "bend", "check")


def test_spares_are_ordered_by_what_is_used_up(shop: FlaskClient) -> None:
    young = shop.get("/api/rack/spares").get_json()["lines"]
    assert [x["verdict"] for x in young] == ["cannot_tell"]
    for n in range(6):
        shop.post("/api/bands", json={**BAND, "label": f"S-{n}"})
    store = shop.application.extensions["store"]
    with store.write() as session:
        for band in session.query(BandRow):
            band.arrived_at = now() - timedelta(weeks=60)
            if band.label in ("S-0", "S-1", "S-2", "S-3", "S-4"):
                gone = BandEventRow(
                    band_id=band.id, at=now() - timedelta(weeks=9), kind="scrapped", detail="worn"
                )
                session.add(gone)
                band.state = "scrapped"
    (line,) = shop.get("/api/rack/spares").get_json()["lines"]
    assert (line["have"], line["used_up"]) == (2, 5)
    assert line["mean_demand"] == pytest.approx(5.5 * 2 / 60, rel=0.01)
    assert (line["verdict"] == "enough" and line["reorder_at"] == 0) or line["reorder_at"] == 1
    waits = shop.get("/api/shop").get_json()["rack"] | {"lead_weeks": 40.0, "service": 0.99}
    version = shop.get("/api/shop").get_json()["version"]
    assert shop.patch("/api/shop", json={"version": version, "rack": waits}).status_code == 200
    (slow,) = shop.get("/api/rack/spares").get_json()["lines"]
    assert slow["verdict"] == "order" and slow["order"] > 3
    assert slow["chance_short"] > 0.5


def made(shop: FlaskClient, label: str = "H-01") -> Any:
    shop.post("/api/coils", json=COIL)
    begun = shop.post(
        "/api/coils/1/make",
        json={"label": label, "length_mm": 3360, "procedure": "short, 4 pulses"},
    )
    assert begun.status_code == 201, begun.json
    return begun.get_json()


def test_a_band_is_made_step_by_step_and_comes_on_the_rack(shop: FlaskClient) -> None:
    begun = made(shop)
    assert begun["coils"][0]["left_mm"] == 16_640
    late = shop.post("/api/makings/1/step", json={"key": "weld"})
    assert late.status_code == 409 and late.get_json()["detail"] == "Cut comes first."
    early = shop.post("/api/makings/1/end", json={"made": True})
    assert early.status_code == 409 and "Not done yet: Cut" in early.get_json()["detail"]
    for key in STEPS:
        assert shop.post("/api/makings/1/step", json={"key": key, "who": "Ada"}).status_code == 200
    ended = shop.post("/api/makings/1/end", json={"made": True, "who": "Ada"}).get_json()
    band = shop.get(f"/api/bands/{ended['making'][0]['band_id']}").get_json()
    assert band["band"]["label"] == "H-01" and band["band"]["price"] == pytest.approx(20.16)
    assert [e["kind"] for e in band["events"]] == ["made"]


def test_what_failed_stays_on_record_by_procedure(shop: FlaskClient) -> None:
    made(shop)
    nowhere = shop.post("/api/makings/1/end", json={"made": False, "failed_at": "dinner"})
    assert nowhere.status_code == 422
    failed = {"made": False, "failed_at": "bend", "why": "cracked beside the weld"}
    ended = shop.post("/api/makings/1/end", json=failed).get_json()
    (told,) = ended["procedures"]
    assert (told["made"], told["failed"], told["at"]) == (0, 1, {"bend": 1})
    assert "too few" in told["words"]
    again = shop.post("/api/makings/1/step", json={"key": "cut"})
    assert again.status_code == 409


def test_a_coil_gives_no_more_than_it_has(shop: FlaskClient) -> None:
    shop.post("/api/coils", json={**COIL, "left_mm": 3000})
    long = {"label": "H-1", "length_mm": 3360, "procedure": "any"}
    assert shop.post("/api/coils/1/make", json=long).status_code == 409


def test_a_price_is_told_dear_or_cheap_by_what_was_paid(shop: FlaskClient) -> None:
    asked = {**{k: v for k, v in BAND.items() if k != "label"}, "price": 40}
    unknown = shop.post("/api/rack/price", json=asked).get_json()
    assert unknown["by_metre"] == "cannot_tell"
    for n in range(3):
        shop.post("/api/bands", json={**BAND, "label": f"P-{n}", "price": 30})
    told = shop.post("/api/rack/price", json=asked).get_json()
    assert told["by_metre"] == "dear" and told["words"].startswith("Dear by 33 % per metre")
    lasting = {**asked, "steel": "bimetal_m42"}
    better = shop.post("/api/rack/price", json=lasting).get_json()
    assert better["by_cut"] == "cheap" and better["by_metre"] == "dear"
    assert shop.post("/api/rack/price", json={**asked, "steel": "cheese"}).status_code == 422


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_a_camera_reads_each_label_and_it_is_of_true_size(shop: FlaskClient, kind: str) -> None:
    for n in range(2):
        shop.post("/api/bands", json={**BAND, "label": f"Łódź {n}"})
    start = min(2, KINDS[kind].a_page)
    sheet = shop.get(f"/labels.pdf?bands=1,2,3&kind={kind}&start={start}")
    assert sheet.mimetype == "application/pdf"
    pages = pypdfium2.PdfDocument(sheet.data)
    assert len(pages) == (3 if kind.startswith("roll") else 1)
    size = [round(v / 72 * 25.4, 1) for v in pages[0].get_size()]
    assert size == pytest.approx(list(KINDS[kind].page_mm), abs=0.1)
    found = []
    for page in pages:
        picture = page.render(scale=300 / 72).to_pil()
        found += [code.text for code in zxingcpp.read_barcodes(picture)]
    assert sorted(found) == [f"http://localhost/#/rack/{n}" for n in (1, 2, 3)]


def test_labels_of_nothing_are_refused_in_words(shop: FlaskClient) -> None:
    assert shop.get("/labels.pdf?bands=").status_code == 422
    assert shop.get("/labels.pdf?bands=9").status_code == 404
    odd = shop.get("/labels.pdf?bands=1&kind=stone").get_json()
    assert "accepted: roll-62" in odd["errors"][0]["message"]
    assert shop.get("/labels.pdf?bands=1&start=99").status_code == 422


def test_a_life_told_is_taken_for_the_types_own_and_is_no_record(shop: FlaskClient) -> None:
    """Ten lives of plain carbon, 8 000 m each: 80 000 m, known no surer than any told one."""
    kind = {k: v for k, v in BAND.items() if k not in ("label", "length_mm")}
    told = shop.post("/api/band-types", json={**kind, "told_life": 10.0}).get_json()
    assert told["told_life"] == 10.0
    with shop.application.extensions["store"].read() as session:
        (row,) = session.query(BandTypeRow)
        found = own_type(row)
    assert found.life_m == 80_000.0 and found.to_buy
    wild = shop.post("/api/band-types", json={**kind, "told_life": 2000.0})
    assert wild.status_code == 422 and wild.get_json()["errors"][0]["path"] == "told_life"
