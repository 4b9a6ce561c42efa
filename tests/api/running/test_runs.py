"""Runs: logged once, replayed, taken back."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.set_up import plan_question
from tests.support.shop import BAND
from tests.support.walks import RUN, open_card, tick_all


def test_the_whole_walk_moves_the_band_s_wear(shop: FlaskClient) -> None:
    assert shop.get("/api/jobs/1/run").get_json()["open"] is False
    url = open_card(shop)
    assert open_card(shop) == url
    assert tick_all(shop, url)["ready"] is True
    assert shop.post(f"{url}/finish").get_json()["finished_at"]
    card = shop.get("/api/jobs/1/run").get_json()
    at_the_saw = card.pop("at_the_saw")
    taps = card.pop("preflight")
    assert [t["key"] for t in taps] == ["hands", "extraction", "support", "isolator"]
    assert taps[0]["name"] == "Push stick in reach"
    assert {e["sign"]: e["do"] for e in at_the_saw["signs"]}["gummed"] == "clean"
    assert card == {
        "job_id": 1,
        "saw_id": 1,
        "band_id": 1,
        "open": True,
        "words": "",
        "when_done": "House rule: release the tension if the saw stands overnight. "
        "Isolate the saw; dust out of the wheel boxes.",
        "waiting": [],
        "lot": None,
    }
    logged = shop.post("/api/runs", json=RUN).get_json()
    assert logged["feed_m_min"] == pytest.approx(25.2 / 800 * 60)
    assert logged["band"]["dullness"] > logged["dullness_before"] == 0
    assert 0.9 < logged["lasts_next"] <= 1
    assert logged["next_words"] == "K-07 also lasts the next such job: over 99 %."
    job = shop.get("/api/jobs/1").get_json()
    assert (job["done_pieces"], job["state"]) == (7, "running")
    page = shop.get("/api/bands/1").get_json()
    assert len(page["runs"]) == 1
    assert page["runs"][0]["edge_after_m"] == pytest.approx(page["band"]["edge_equivalent_m"])


def test_a_run_sent_twice_counts_once(shop: FlaskClient) -> None:
    first, second = (shop.post("/api/runs", json=RUN).get_json() for _ in range(2))
    assert first["id"] == second["id"]
    assert shop.get("/api/bands/1").get_json()["band"]["runs"] == 1


def test_taking_a_run_back_takes_its_wear_back_and_undo_brings_both(shop: FlaskClient) -> None:
    logged = shop.post("/api/runs", json=RUN).get_json()
    change = shop.delete(f"/api/runs/{logged['id']}").get_json()["change_id"]
    assert shop.get("/api/bands/1").get_json()["band"]["edge_equivalent_m"] == 0
    assert shop.post(f"/api/changes/{change}/undo").status_code == 200
    band = shop.get("/api/bands/1").get_json()["band"]
    assert band["edge_equivalent_m"] == pytest.approx(logged["equivalent_m"])
    again = shop.post(f"/api/changes/{change}/undo")
    assert again.status_code == 409
    assert again.get_json()["detail"] == "This change was undone already."


@pytest.mark.parametrize(
    ("change", "path", "words"),
    [
        ({"time_s": 20}, "", ""),
        ({"time_s": None, "feed_m_min": None}, "", "give time_s or feed_m_min"),
        ({"feed_m_min": 2.0, "time_s": 13}, "time_s", "did you mean minutes?"),
        (
            {"time_s": 0.5},
            "time_s",
            "is a feed of 3024 m/min; accepted: a feed",
        ),
        ({"pieces": 0}, "pieces", "0 is out of range; accepted: at least 1"),
        ({"symptoms": ["sad"]}, "symptoms.0", "'sad' is not accepted"),
        ({"client_key": "x y"}, "client_key", ""),
    ],
)
def test_senseless_runs_are_refused(
    shop: FlaskClient, change: dict[str, Any], path: str, words: str
) -> None:
    response = shop.post("/api/runs", json={**RUN, **change})
    if change == {"time_s": 20}:
        assert response.status_code == 201
        return
    assert response.status_code == 422
    told = response.get_json()["errors"][0]
    assert told["path"] == path and words in told["message"]


def test_a_run_unlike_its_job_is_asked_about_and_moves_no_wear_until_confirmed(
    shop: FlaskClient,
) -> None:
    """A tenth of the feed: a slip of the pen, kept, marked, and believed only when confirmed."""
    slow = RUN | {"time_s": 9600, "client_key": "slow-run-0001"}
    logged = shop.post("/api/runs", json=slow).get_json()
    assert "of the plan's" in logged["to_confirm"] and logged["to_confirm"].endswith("really?")
    assert logged["band"]["dullness"] == 0
    assert logged["without_card"].startswith("Plan it first")
    (waiting,) = shop.get("/api/jobs/1/run").get_json()["waiting"]
    assert (waiting["id"], waiting["words"]) == (logged["id"], logged["to_confirm"])
    assert shop.get("/api/bands/1").get_json()["runs"][0]["to_confirm"] == logged["to_confirm"]
    believed = shop.post(f"/api/runs/{logged['id']}/confirm").get_json()
    assert shop.get("/api/jobs/1/run").get_json()["waiting"] == []
    assert believed["to_confirm"] == "" and believed["band"]["dullness"] > 0


def test_a_length_unlike_the_job_s_is_asked_about_too(shop: FlaskClient) -> None:
    long = RUN | {"length_mm": 36_000, "time_s": 8000, "client_key": "long-run-0001"}
    asked = shop.post("/api/runs", json=long).get_json()["to_confirm"]
    assert asked == "36000 mm each: 10 times the job's 3600 mm; really?"
    sure = long | {"client_key": "long-run-0002", "confirmed": True}
    assert shop.post("/api/runs", json=sure).get_json()["to_confirm"] == ""


def test_signs_at_a_run_make_the_edge_duller_at_once(shop: FlaskClient) -> None:
    plain = shop.post("/api/runs", json=RUN).get_json()["band"]["dullness"]
    smoked = RUN | {"client_key": "smoke-run-001", "symptoms": ["smoke", "burn"]}
    assert shop.post("/api/runs", json=smoked).get_json()["band"]["dullness"] > max(0.5, plain)


@pytest.mark.parametrize(
    ("kind", "value", "words"),
    [
        ("crack", None, "It has a crack: scrap it"),
        ("kink", None, "It is kinked: off the saw until mended"),
        ("weld_stepped", None, "Its weld is stepped: off the saw until mended"),
        ("teeth_lost", 2, "It has lost more teeth than this shop allows: off the saw"),
    ],
)
def test_damage_keeps_a_band_off_the_saw(
    shop: FlaskClient, kind: str, value: int | None, words: str
) -> None:
    question = plan_question(shop)
    assert shop.post("/api/plan", json=question).get_json()["best"]["band"]["band_id"] == 1
    event = {"kind": kind, "value": value, "detail": ""}
    assert shop.post("/api/bands/1/events", json=event).get_json()["defects"] == [kind]
    shut = shop.post("/api/plan", json=question).get_json()
    told = {e["band_id"]: [r["text"] for r in e["reasons"]] for e in shut["excluded"]}
    assert words in told[1]
    band = shop.get("/api/bands/1").get_json()["band"]
    assert (band["damage"], band["edge"]) == (words, "damaged")
    mended = shop.post("/api/bands/1/events", json={"kind": "mended", "detail": kind})
    if "until mended" not in words:
        assert mended.status_code == 422
        ground = {"kind": "sharpened", "value": 0.5}
        assert shop.post("/api/bands/1/events", json=ground).get_json()["edge"] == "damaged"
        return
    assert (mended.get_json()["defects"], mended.get_json()["edge"]) == ([], "keen")
    assert shop.post("/api/plan", json=question).get_json()["best"]["band"]["band_id"] == 1


def test_teeth_lost_says_how_many_and_mending_what(shop: FlaskClient) -> None:
    for event in ({"kind": "teeth_lost"}, {"kind": "mended", "detail": "the lot"}):
        refused = shop.post("/api/bands/1/events", json=event)
        assert refused.status_code == 422, event


def shut_out(shop: FlaskClient) -> set[int]:
    """The bands that job 1 cannot use."""
    told = shop.post("/api/plan", json=plan_question(shop)).get_json()
    return {e["band_id"] for e in told["excluded"]}


def test_one_lost_tooth_is_let_pass_where_the_shop_allows_it(shop: FlaskClient) -> None:
    lost = {"kind": "teeth_lost", "value": 1, "detail": ""}
    shop.post("/api/bands/1/events", json=lost)
    assert 1 in shut_out(shop)
    now = shop.get("/api/shop").get_json()
    allowed = {**now, "rates": {**now["rates"], "teeth_missing_allowed": 1}}
    answer = saved(shop, "/api/shop", allowed)
    assert answer.status_code == 200, answer.json
    best = shop.post("/api/plan", json=plan_question(shop)).get_json()["best"]
    assert best["band"]["band_id"] == 1
    shop.post("/api/bands/1/events", json=lost)
    assert 1 in shut_out(shop)


def test_an_edge_past_its_life_is_asked_about_and_answered(shop: FlaskClient) -> None:
    worn = {"kind": "edge_judged", "value": 1.2, "detail": "still cuts"}
    assert shop.post("/api/bands/1/events", json=worn).get_json()["still_good_asked"]
    told = shop.post("/api/bands/1/events", json={"kind": "still_good", "detail": ""}).get_json()
    assert not told["still_good_asked"]


def test_a_life_nobody_would_believe_is_named_on_the_bands_page(shop: FlaskClient) -> None:
    absurd = RUN | {"client_key": "absurd-run-01", "pieces": 900, "confirmed": True}
    assert shop.post("/api/runs", json=absurd | {"time_s": 103_000}).status_code == 201
    dull = {"kind": "sharpened", "value": 0.9, "detail": ""}
    shop.post("/api/bands/1/events", json=dull)
    doubted = shop.get("/api/bands/1").get_json()["life"]["doubted"]
    assert [d["number"] for d in doubted] == [0] and doubted[0]["ended"]
    refused = shop.post("/api/bands/1/events", json={"kind": "life_confirmed", "detail": ""})
    assert refused.status_code == 422
    shop.post("/api/bands/1/events", json={"kind": "life_confirmed", "detail": "", "value": 0})
    assert shop.get("/api/bands/1").get_json()["life"]["doubted"] == []


def test_a_use_kept_for_a_band_is_obeyed(shop: FlaskClient) -> None:
    band = shop.get("/api/bands/1").get_json()["band"]
    kept = {k: band[k] for k in BAND_FIELDS} | {"kept_for": "old_timber"}
    assert saved(shop, "/api/bands/1", kept).get_json()["kept_for"] == "old_timber"
    shut = shop.post("/api/plan", json=plan_question(shop)).get_json()
    told = {e["band_id"]: [r["text"] for r in e["reasons"]] for e in shut["excluded"]}
    assert "Kept for old timber only" in told[1]


BAND_FIELDS = (
    "label",
    "width_mm",
    "thickness_mm",
    "tpi_lo",
    "tpi_hi",
    "form",
    "steel",
    "length_mm",
    "set_per_side_mm",
    "price",
    "place",
    "note",
)


def test_what_is_asked_of_a_run_is_said_in_the_reader_s_units(shop: FlaskClient) -> None:
    slow = RUN | {"time_s": 9600, "client_key": "slow-run-0002"}
    asked = shop.post("/api/runs", json=slow, headers={"Quantities": "open"}).get_json()
    kinds = [p["kind"] for p in asked["to_confirm"] if isinstance(p, dict)]
    assert kinds == ["feed", "feed"]


def test_a_dull_band_s_run_is_held_against_what_it_would_do_when_keen(shop: FlaskClient) -> None:
    judged = {"kind": "edge_judged", "value": 1.5, "detail": "round to the thumb"}
    assert shop.post("/api/bands/1/events", json=judged).status_code in (200, 201)
    slow = RUN | {"time_s": 19_600, "client_key": "slow-run-0003"}
    assert shop.post("/api/runs", json=slow).get_json()["to_confirm"]
    plain = RUN | {"client_key": "dull-run-0001"}
    assert not shop.post("/api/runs", json=plain).get_json()["to_confirm"]


def test_a_band_that_does_not_go_on_the_saw_is_asked_about(shop: FlaskClient) -> None:
    band = shop.get("/api/bands/1").get_json()["band"]
    short = {k: band[k] for k in BAND_FIELDS} | {"label": "S-01", "length_mm": 2000}
    other = shop.post("/api/bands", json=short).get_json()["id"]
    logged = shop.post(
        "/api/runs", json=RUN | {"band_id": other, "client_key": "misfit-0001"}
    ).get_json()
    assert logged["to_confirm"] == "This band does not go on this saw; really?"


def test_a_band_damaged_after_its_card_is_not_ready_to_run(shop: FlaskClient) -> None:
    url = open_card(shop)
    assert tick_all(shop, url)["ready"]
    assert shop.post(f"{url}/finish").status_code == 200
    assert shop.get("/api/jobs/1/run").get_json()["open"]
    assert shop.get("/api/saws/1/stand").get_json()["verdict"]["state"] == "cannot_tell"
    shop.post("/api/bands/1/events", json={"kind": "kink", "detail": "at the weld"})
    card = shop.get("/api/jobs/1/run").get_json()
    assert not card["open"] and "It is kinked: off the saw until mended" in card["words"]
    stand = shop.get("/api/saws/1/stand").get_json()["verdict"]
    assert stand["state"] == "not_ready" and "It is kinked" in stand["words"]
    shop.post("/api/bands/1/events", json={"kind": "mended"})
    assert shop.get("/api/jobs/1/run").get_json()["open"]


def test_a_lot_under_way_tells_what_is_left_and_whether_to_go_on(shop: FlaskClient) -> None:
    saved(shop, "/api/jobs/1", {"band_id": 1, "count": 400})
    assert shop.get("/api/jobs/1/run").get_json()["lot"] is None
    stands = []
    for sitting in range(12):
        run = {**RUN, "client_key": f"lot-sitting-{sitting:02}", "pieces": 30, "time_s": 3400}
        assert shop.post("/api/runs", json=run).status_code == 201
        lot = shop.get("/api/jobs/1/run").get_json()["lot"]
        stands.append(lot)
        assert lot["done"] == 30 * (sitting + 1) and lot["left"] == 400 - lot["done"]
        assert 0 <= lot["pieces_low"] <= lot["pieces_high"] <= lot["left"]
        better = lot["go_on"]["go_on_cost"] <= lot["go_on"]["change_cost"]
        assert lot["go_on"]["better"] == ("go_on" if better else "change")
    assert stands[0]["go_on"]["better"] == "go_on" and "Go on" in stands[0]["words"]
    assert stands[-1]["go_on"]["better"] == "change"
    for lot in stands:
        said = str(lot["words"])
        if lot["blocked"]:
            assert "see to the band" in said and lot["pieces_high"] == 0
        else:
            assert ("Go on" in said) == (lot["go_on"]["better"] == "go_on")
    chances = [s["chance_next"] for s in stands]
    assert chances[0] > 0.95 and chances[-1] < chances[0]
    done = {**RUN, "client_key": "lot-sitting-99", "pieces": 40, "time_s": 4500}
    shop.post("/api/runs", json=done)
    assert shop.get("/api/jobs/1/run").get_json()["lot"] is None


def test_teeth_lost_at_a_strike_take_the_band_off_until_mended(shop: FlaskClient) -> None:
    saved(shop, "/api/jobs/1", {"band_id": 1})
    told = {"strikes": 2, "teeth_lost": 3, "chips": "dust", "preflight": ["hands"]}
    logged = shop.post("/api/runs", json=RUN | told | {"stops": [{"along_mm": 900}]}).get_json()
    band = shop.get("/api/bands/1").get_json()["band"]
    assert band["teeth_lost"] == 3 and "teeth_lost" in band["defects"]
    assert "teeth" in shop.get("/api/jobs/1/run").get_json()["words"]
    assert shop.delete(f"/api/runs/{logged['id']}").status_code == 200
    assert shop.get("/api/bands/1").get_json()["band"]["defects"] == []


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"teeth_lost": 2}, "needs the strike"),
        ({"amps_A": 5.0}, "amps_A tells nothing without idle_A and volts_V"),
        ({"amps_A": 2.0, "idle_A": 3.0, "volts_V": 230.0}, "no more than idling"),
        ({"stops": [{"along_mm": -1}]}, "out of range"),
        ({"preflight": ["nothing"]}, "accepted"),
    ],
)
def test_what_a_run_cannot_tell_is_refused(
    shop: FlaskClient, changed: dict[str, Any], words: str
) -> None:
    answer = shop.post("/api/runs", json=RUN | changed)
    assert answer.status_code == 422 and words in str(answer.get_json())


def test_amps_teach_the_wood_less_than_watts_would(shop: FlaskClient) -> None:
    amps = {"amps_A": 6.0, "idle_A": 3.0, "volts_V": 230.0}
    shop.post("/api/runs", json=RUN | amps)
    by_amps = shop.get("/api/shop").get_json()["pressures"]["european_larch_dry"]
    watts = {"power_W": 6.0 * 230 * 0.8, "idle_W": 3.0 * 230 * 0.25, "client_key": "another-one"}
    shop.delete("/api/runs/1")
    shop.post("/api/runs", json=RUN | watts)
    by_watts = shop.get("/api/shop").get_json()["pressures"]["european_larch_dry"]
    assert by_amps["sd_ln"] > by_watts["sd_ln"]


def test_a_lot_under_way_tells_its_pace_and_the_bands_to_come(shop: FlaskClient) -> None:
    open_card(shop)
    shop.post("/api/runs", json=RUN | {"pieces": 2, "time_s": 240.0})
    lot = shop.get("/api/jobs/1/run").get_json()["lot"]
    assert lot["left"] == 5 and lot["pace_words"].startswith("so far")
    assert "more." in lot["bands_words"]


def test_dust_at_a_feed_that_should_cut_chips_speaks_of_the_edge(shop: FlaskClient) -> None:
    def dullness(**told: Any) -> float:
        run = shop.post("/api/runs", json=RUN | told).get_json()
        found: float = run["band"]["dullness"]
        assert shop.delete(f"/api/runs/{run['id']}").status_code == 200
        return found

    judged = {"kind": "edge_judged", "value": 0.7, "detail": "under a glass"}
    assert shop.post("/api/bands/1/events", json=judged).status_code in (200, 201)
    plain = dullness(client_key="plain-run-1", chips="flakes")
    dusty = dullness(client_key="dusty-run-1", chips="dust")
    assert dusty > plain
    logged = shop.post("/api/runs", json=RUN | {"preflight": ["hands", "support"]}).get_json()
    assert logged["not_tapped"] == "Extraction on, Isolator in reach, doors shut"
    told = RUN | {"client_key": "struck-run-1", "strikes": 2, "teeth_lost": 1}
    shop.post("/api/runs", json=told)
    lines = shop.get("/api/bands/1").get_json()["runs"]
    assert any("struck metal 2 times, 1 teeth gone" in line["symptoms"] for line in lines)


def test_a_new_hard_edge_is_broken_in_first(shop: FlaskClient) -> None:
    """By its card and at the saw at half the planned feed, until its runs have done it."""
    hard = {**BAND, "label": "B-01", "steel": "bimetal_m42"}
    assert shop.post("/api/bands", json=hard).status_code == 201
    assert saved(shop, "/api/jobs/1", {"saw_id": 1, "band_id": 2}).status_code == 200

    def card_of(band_id: int) -> dict[str, Any]:
        begun = shop.post("/api/setups", json={"job_id": 1, "band_id": band_id}).get_json()
        card: dict[str, Any] = shop.get(f"/api/setups/{begun['id']}").get_json()["card"]
        return card

    card = card_of(2)
    new = shop.get("/api/jobs/1/run").get_json()["at_the_saw"]["break_in"]
    assert card["break_in"]["feed_m_min"] == new["feed_m_min"]
    assert new["feed_m_min"] == pytest.approx(card["feed_m_min"] / 2, rel=1e-6)
    trial = next(s for s in card["steps"] if s["key"] == "trial")
    assert f"{new['feed_m_min']:.1f} m/min" in trial["do"]
    run = {**RUN, "band_id": 2, "pieces": 1, "length_mm": 100}
    fed = {"time_s": 6.0 / card["feed_m_min"], "client_key": "the-first-full-bite"}
    full = shop.post("/api/runs", json=run | fed | {"confirmed": True}).get_json()
    left = shop.get("/api/jobs/1/run").get_json()["at_the_saw"]["break_in"]
    assert left["left_mm2"] == pytest.approx(30_000 - 185 * 100)
    more = {
        **run,
        "confirmed": True,
        "length_mm": 200,
        "time_s": 60.0,
        "client_key": "the-second-slower",
    }
    shop.post("/api/runs", json=more)
    assert shop.get("/api/jobs/1/run").get_json()["at_the_saw"]["break_in"] is None
    again = shop.post(
        "/api/runs", json=run | fed | {"client_key": "broken-in-by-now", "confirmed": True}
    ).get_json()
    assert full["equivalent_m"] == pytest.approx(2.0 * again["equivalent_m"], rel=0.05)
    assert card_of(1)["break_in"] is None
