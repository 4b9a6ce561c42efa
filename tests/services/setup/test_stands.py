"""The saw as it stands."""

from flask.testing import FlaskClient

from tests.support.set_up import post, slack_job, tick, whole
from tests.support.shop import BAND


def test_a_saw_stands_slack_defective_or_ready(shop: FlaskClient) -> None:
    stand = "/api/saws/1/stand"
    assert shop.get(stand).get_json()["ready_words"] == "No band is on it."
    whole(shop)
    ready = shop.get(stand).get_json()
    assert ready["ready"] and ready["last"]["band_label"] == "K-07"
    assert ready["speed_set_m_s"] == 14.5 and ready["last"]["stress_MPa"] == 130.0
    defect = post(shop, "/api/saws/1/defects", 201, text="Tyre loose", stops=True, who="Odda")
    stopped = shop.get(stand).get_json()
    assert not stopped["ready"] and "Tyre loose" in stopped["ready_words"]
    url = f"/api/setups/{slack_job(shop)}"
    for step in shop.get(url).get_json()["card"]["steps"]:
        tick(shop, url, step["key"])
    refused = shop.post(f"{url}/finish")
    assert refused.status_code == 409 and "Tyre loose" in refused.get_json()["detail"]
    post(shop, f"/api/defects/{defect['id']}/close", who="Brill")
    assert shop.get(stand).get_json()["ready"]
    post(shop, "/api/saws/1/tension", state="slack")
    assert "slack: tension it before it is started" in shop.get(stand).get_json()["ready_words"]


def test_the_next_job_as_it_is_against_a_change(shop: FlaskClient) -> None:
    whole(shop)
    same = shop.get("/api/saws/1/stand?job_id=1").get_json()["next_job"]
    assert same["as_it_is"]["able"] and same["as_it_is"]["change_minutes"] == 0
    assert same["words"].startswith("It can, as it is")
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
