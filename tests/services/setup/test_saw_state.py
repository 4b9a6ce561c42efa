"""The saw as it stands."""

from datetime import timedelta
from typing import Any

from flask.testing import FlaskClient

from jade_ribbon.core.quantities.words import Quantity, Sentence, metric
from jade_ribbon.services.clock import now
from jade_ribbon.store.models import SawRow
from tests.support.edits import saved
from tests.support.set_up import post, slack_job, tick, whole
from tests.support.shop import BAND
from tests.support.walks import RUN


def told(words: Any) -> str:
    """A sentence of an answer, in metric units."""
    if isinstance(words, str):
        return words
    parts = [p if isinstance(p, str) else Quantity(**p) for p in words["parts"]]
    return metric(Sentence(tuple(parts)))


def test_a_saw_stands_slack_defective_or_ready(shop: FlaskClient) -> None:
    stand = "/api/saws/1/stand"
    assert shop.get(stand).get_json()["verdict"]["words"] == "No band is on it."
    whole(shop)
    unseen = shop.get(stand).get_json()["verdict"]
    assert unseen["state"] == "cannot_tell"
    assert unseen["not_looked_at"] == ["extraction", "brake, switch and stop"]
    for key in ("brake", "extraction"):
        post(shop, "/api/saws/1/upkeep", 201, key=key, who="Odda")
    ready = shop.get(stand).get_json()
    assert ready["verdict"]["state"] == "ready" and ready["last"]["band_label"] == "K-07"
    assert ready["speed_set_m_s"] == 14.5 and ready["last"]["stress_MPa"] == 130.0
    defect = post(shop, "/api/saws/1/defects", 201, text="Tyre loose", stops=True, who="Odda")
    stopped = shop.get(stand).get_json()
    assert (
        stopped["verdict"]["state"] == "not_ready" and "Tyre loose" in stopped["verdict"]["words"]
    )
    url = f"/api/setups/{slack_job(shop)}"
    for step in shop.get(url).get_json()["card"]["steps"]:
        tick(shop, url, step["key"])
    refused = shop.post(f"{url}/finish")
    assert refused.status_code == 409 and "Tyre loose" in refused.get_json()["detail"]
    post(shop, f"/api/defects/{defect['id']}/close", who="Brill")
    assert shop.get(stand).get_json()["verdict"]["state"] == "ready"
    post(shop, "/api/saws/1/tension", state="slack")
    slack = shop.get(stand).get_json()["verdict"]
    assert "slack: tension it before it is started" in slack["words"]


def _verdict(shop: FlaskClient) -> dict[str, Any]:
    found: dict[str, Any] = shop.get("/api/saws/1/stand").get_json()["verdict"]
    return found


def test_everything_recorded_speaks_in_the_verdict(shop: FlaskClient) -> None:
    """Tension typed at 300 MPa, guides read on the teeth, a trouble, a strike: none is ready."""
    url = whole(shop)
    for key in ("brake", "extraction"):
        post(shop, "/api/saws/1/upkeep", 201, key=key, who="Odda")
    assert _verdict(shop)["state"] == "ready"
    post(shop, "/api/saws/1/tension", state="on", stress_MPa=300)
    assert "300 MPa left" in told(_verdict(shop)["words"])
    post(shop, "/api/saws/1/tension", state="on", stress_MPa=130)
    assert _verdict(shop)["state"] == "cannot_tell"  # tracking and guides were set before that
    assert "track again" in _verdict(shop)["not_looked_at"]
    tick(shop, url, "guides_upper", left={"fore_aft_mm": -2.0})
    opened = post(shop, "/api/faults", 201, saw_id=1, symptoms={"drift": "clear"}, who="Odda")
    found = [told(w) for w in _verdict(shop)["against"]]
    assert any("A trouble is open on it: drifts one way" in w for w in found), found
    assert any("Behind the gullets: -2.00 mm left" in w for w in found), found
    assert opened["id"]
    run = {**RUN, "client_key": "struck-run-01", "strikes": 1}
    post(shop, "/api/runs", 201, **run)
    assert "was hit or came off" in told(_verdict(shop)["words"])


def test_tension_left_on_over_the_night_is_against_the_rule_to_release(shop: FlaskClient) -> None:
    whole(shop)
    with shop.application.extensions["store"].write() as session:
        session.query(SawRow).one().tension_since = now() - timedelta(days=161)
    words = told(_verdict(shop)["words"])
    assert "Under tension for 160 days, against the house rule" in words
    assert shop.get("/api/jobs/1/run").get_json()["words"] == words


def test_mounting_over_the_api_wants_an_authorised_name_where_it_is_reserved(
    shop: FlaskClient,
) -> None:
    saved(shop, "/api/setting-up", {"reserved": ["band_change"], "authorised": ["Odda"]})
    for who, status in (("", 409), ("Anybody", 409), ("Odda", 200)):
        answer = shop.post("/api/saws/1/mount", json={"band_id": 1, "who": who})
        assert answer.status_code == status, answer.get_json()


def test_the_next_job_as_it_is_against_a_change(shop: FlaskClient) -> None:
    whole(shop)
    same = shop.get("/api/saws/1/stand?job_id=1").get_json()["next_job"]
    assert same["as_it_is"]["able"] and same["as_it_is"]["change_minutes"] == 0
    assert same["words"].startswith("It can, as it is")
    post(shop, "/api/saws/1/tension", state="slack")
    slack = shop.get("/api/saws/1/stand?job_id=1").get_json()["next_job"]
    assert slack["words"].startswith("It can once the saw is ready")
    post(shop, "/api/saws/1/tension", state="on", stress_MPa=130)
    fine = {**BAND, "label": "K-01", "width_mm": 6.35, "thickness_mm": 0.64}
    fine |= {"form": "regular", "tpi_lo": 6, "tpi_hi": 6}
    assert shop.post("/api/bands", json=fine).status_code == 201
    curve = {
        "operation": "curve",
        "material": "european_larch_dry",
        "height_mm": 30,
        "length_mm": 600,
        "count": 4,
        "min_radius_mm": 40,
        "finish": "sand",
        "saw_id": 1,
    }
    job = post(shop, "/api/jobs", 201, **curve)
    asked = shop.get(f"/api/saws/1/stand?job_id={job['id']}").get_json()["next_job"]
    assert not asked["as_it_is"]["able"] and asked["changed"]["band_label"] == "K-01"
    assert asked["words"].startswith("Not as it is:") and "K-01 can, after 12 min" in asked["words"]


def test_a_deleted_job_takes_its_card_from_the_verdict_and_nothing_else(shop: FlaskClient) -> None:
    """The last card with the band was of a job that is gone: the saw is told, runs are logged."""
    whole(shop)
    other = shop.post("/api/jobs/1/duplicate").get_json()["id"]
    begun = shop.post("/api/setups", json={"job_id": other, "band_id": 1}).get_json()["id"]
    tick(shop, f"/api/setups/{begun}", "isolate")
    assert shop.delete(f"/api/jobs/{other}").status_code == 200
    left = _verdict(shop)
    assert left["state"] == "cannot_tell"
    assert "its set-up, since the job was changed or deleted" in left["not_looked_at"]
    assert shop.post("/api/runs", json=RUN).status_code == 201


def test_a_steel_s_higher_tension_for_metal_is_for_a_metal_saw(shop: FlaskClient) -> None:
    """Carbon: 90 to 150 MPa in wood, 120 to 200 in metals."""
    carbon = {**BAND, "label": "C-01", "steel": "carbon_hardback"}
    band = shop.post("/api/bands", json=carbon).get_json()["id"]
    post(shop, "/api/saws/1/mount", band_id=band)
    post(shop, "/api/saws/1/tension", state="on", stress_MPa=190)
    assert "190 MPa left" in told(_verdict(shop)["words"])
    slow = {"drive": {"kind": "fixed", "speeds_m_s": [0.4, 1.5]}, "wheel_force_max_N": 9000}
    answer = saved(shop, "/api/saws/1", slow)
    assert answer.status_code == 200, answer.get_json()
    assert "190 MPa left" not in str([told(w) for w in _verdict(shop)["against"]])
