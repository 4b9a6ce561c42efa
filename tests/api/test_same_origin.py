"""A web page the operator visits can neither read nor change anything here."""

import pytest
from flask.testing import FlaskClient

JSON = {"Content-Type": "application/json"}


def undo_url(shop: FlaskClient) -> str:
    change = shop.get("/api/changes?noun=band&noun_id=1").get_json()[0]["id"]
    return f"/api/changes/{change}/undo"


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://elsewhere.example"},
        {"Origin": "null"},
        {"Origin": "http://localhost:3000"},
        {"Origin": "https://localhost.elsewhere.example"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
        {"Sec-Fetch-Site": "anything new"},
        {"Host": "rebound.example"},
        {"Host": "rebound.example:8433"},
        {"Host": "127.0.0.1.rebound.example"},
    ],
)
def test_a_stranger_changes_nothing(shop: FlaskClient, headers: dict[str, str]) -> None:
    url = undo_url(shop)
    refused = shop.open(url, method="POST", headers={**JSON, **headers})
    assert refused.status_code == 403 and refused.get_json()["code"] in ("host", "origin")
    for method in ("PUT", "DELETE", "POST"):
        assert (
            shop.open("/api/bands/1", method=method, headers={**JSON, **headers}).status_code == 403
        )
    assert shop.get("/api/bands/1").get_json()["band"]["label"]


@pytest.mark.parametrize("kind", ["", "text/plain", "application/x-www-form-urlencoded"])
def test_a_form_changes_nothing(shop: FlaskClient, kind: str) -> None:
    """A post that needs no preflight is no post of ours, with or without a body."""
    url = undo_url(shop)
    assert shop.open(url, method="POST", content_type=kind or None).status_code == 415
    body = '{"kind": "crack", "detail": ""}'
    sent = shop.open("/api/bands/1/events", method="POST", data=body, content_type=kind or None)
    assert sent.status_code == 415
    assert shop.get("/api/bands/1").get_json()["band"]["defects"] == []


@pytest.mark.parametrize("path", ["/", "/api/shop", "/api/openapi.json", "/api/nothing"])
def test_a_name_rebound_to_this_machine_reads_nothing(shop: FlaskClient, path: str) -> None:
    refused = shop.get(path, headers={"Host": "rebound.example"})
    assert refused.status_code == 403 and refused.get_json()["code"] == "host"


@pytest.mark.parametrize("host", ["localhost:8433", "127.0.0.1:9", "[::1]:8433", "LOCALHOST"])
def test_this_machine_s_own_names_are_answered(shop: FlaskClient, host: str) -> None:
    headers = {**JSON, "Host": host, "Origin": f"http://{host}", "Sec-Fetch-Site": "same-origin"}
    assert shop.get("/api/shop", headers={"Host": host}).status_code == 200
    assert shop.open(undo_url(shop), method="POST", headers=headers).status_code in (200, 409)
