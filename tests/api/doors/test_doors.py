"""The doors as a device of the network meets them: before it joined, after, and shut out."""

from typing import Any

import pytest
from flask import Flask
from flask.testing import FlaskClient

from jade_ribbon.api.doors.guard import COOKIE, DOOR, NETWORK
from jade_ribbon.api.routes import OPERATIONS, PERMISSIONS
from jade_ribbon.api.same_origin import allow_hosts
from tests.support.shop import BAND

WORDS = "copper kettle ninety"
HTTPS = "https://192.168.1.7:8443"


class Phone:
    """A browser of the network: HTTPS, its own cookies, its own page's origin."""

    def __init__(self, app: Flask, address: str = "192.168.1.50") -> None:
        self.client = app.test_client()
        self.come: dict[str, Any] = {
            "base_url": HTTPS,
            "environ_overrides": {DOOR: NETWORK, "REMOTE_ADDR": address},
            "headers": {"Origin": HTTPS},
        }

    def get(self, path: str, **more: Any) -> Any:
        return self.client.get(path, **self.come, **more)

    def post(self, path: str, body: Any = None, **more: Any) -> Any:
        return self.client.post(path, json=body or {}, **self.come, **more)

    def patch(self, path: str, body: Any) -> Any:
        return self.client.patch(path, json=body, **self.come)

    def join(self, owner: FlaskClient, role: str) -> "Phone":
        made = owner.post("/api/doors/code", json={"name": "Phone", "role": role}).get_json()
        assert self.post("/api/door/join", {"code": made["code"]}).status_code == 200
        return self


@pytest.fixture
def networked(app: Flask, shop: FlaskClient) -> Flask:
    allow_hosts(app, ["192.168.1.7"])
    answer = shop.post("/api/doors/passphrase", json={"passphrase": WORDS})
    assert answer.status_code == 200, answer.get_json()
    return app


@pytest.fixture
def phone(networked: Flask) -> Phone:
    return Phone(networked)


def test_before_it_joins_a_device_has_nothing_of_the_shop(phone: Phone) -> None:
    """Every operation, whatever it does: told to join, with nothing of a record in the answer."""
    for op in OPERATIONS:
        if op.stranger:
            continue
        path = op.path.replace("<int:", "<")
        for name in op.path_parameters:
            path = path.replace(f"<{name}>", "1")
        kind: dict[str, Any] = {}
        if op.method in ("POST", "PATCH"):
            kind["content_type"] = op.media
        answer = phone.client.open(path, method=op.method, **phone.come, **kind)
        assert answer.status_code == 401, op.name
        assert answer.get_json()["code"] == "join"
    for path in ("/export.zip", "/shop.sqlite", "/setups/1.pdf", "/radius-card.svg"):
        assert phone.get(path).status_code == 401
    assert phone.get("/api/photos/1.jpg").status_code == 401


def test_a_code_from_the_owners_screen_lets_it_in(phone: Phone, shop: FlaskClient) -> None:
    phone.join(shop, "anyone")
    told = phone.get("/api/door").get_json()
    assert (told["here"], told["joined"], told["role"]) == ("network", True, "anyone")
    assert [b["label"] for b in phone.get("/api/bands").get_json()] == [BAND["label"]]


def test_the_cookie_goes_nowhere_else_and_no_script_reads_it(
    phone: Phone, shop: FlaskClient
) -> None:
    made = shop.post("/api/doors/code", json={"name": "Phone", "role": "anyone"}).get_json()
    cookie = phone.post("/api/door/join", {"code": made["code"]}).headers["Set-Cookie"]
    assert cookie.startswith(f"{COOKIE}=")
    for word in ("Secure", "HttpOnly", "SameSite=Strict", "Path=/"):
        assert word in cookie
    assert "Domain" not in cookie


OWNERS = [
    ("PATCH", "/api/shop", {"version": 1, "name": "x"}),
    ("PATCH", "/api/setting-up", {"version": 1, "reserved": []}),
    ("PATCH", "/api/saws/1", {"version": 1, "name": "x"}),
    ("POST", "/api/copies/restore", {"name": "x"}),
    ("POST", "/api/doors/code", {"name": "x", "role": "anyone"}),
    ("POST", "/api/doors/passphrase", {"passphrase": "mine now it is"}),
    ("GET", "/api/doors", None),
    ("GET", "/api/copies", None),
    ("GET", "/export.zip", None),
    ("GET", "/shop.sqlite", None),
]


@pytest.mark.parametrize("role", ["anyone", "authorised"])
@pytest.mark.parametrize(("method", "path", "body"), OWNERS)
def test_what_is_the_owners_is_refused_to_others_in_words(
    networked: Flask, shop: FlaskClient, role: str, method: str, path: str, body: Any
) -> None:
    phone = Phone(networked).join(shop, role)
    answer = phone.client.open(path, method=method, json=body, **phone.come)
    assert answer.status_code == 403
    assert answer.get_json()["detail"] == "This is for the owner's device only."


def test_every_role_that_is_asked_for_is_one_that_can_be_given() -> None:
    assert {op.role for op in OPERATIONS} == {"anyone", "authorised", "owner"}
    assert PERMISSIONS["save_shop"].role == "owner"
    assert PERMISSIONS["log_run"].role == PERMISSIONS["plan_cut"].role == "anyone"
    assert PERMISSIONS["whole_file"].role == PERMISSIONS["export_zip"].role == "owner"


def test_the_passphrase_makes_this_device_the_owners(phone: Phone) -> None:
    entered = phone.post("/api/door/enter", {"passphrase": WORDS, "name": "Mine"})
    assert entered.get_json()["role"] == "owner"
    assert phone.patch("/api/shop", {"version": 1, "name": "Yard"}).status_code == 200
    assert phone.get("/api/doors").get_json()["devices"][0]["this_one"] is True


def test_a_device_shut_out_has_nothing_from_its_next_request_on(
    phone: Phone, shop: FlaskClient
) -> None:
    phone.join(shop, "authorised")
    (device,) = shop.get("/api/doors").get_json()["devices"]
    shop.post("/api/doors/shut-out", json={"id": device["id"]})
    answer = phone.get("/api/bands")
    assert (answer.status_code, answer.get_json()["code"]) == (401, "join")


def test_a_stolen_cookie_is_worth_nothing_once_its_device_left(
    phone: Phone, networked: Flask, shop: FlaskClient
) -> None:
    phone.join(shop, "anyone")
    cookie = phone.client.get_cookie(COOKIE, domain="192.168.1.7")
    assert cookie is not None
    thief = Phone(networked, "192.168.1.66")
    thief.client.set_cookie(COOKIE, cookie.value, domain="192.168.1.7", secure=True)
    assert thief.get("/api/bands").status_code == 200
    phone.post("/api/door/leave")
    assert thief.get("/api/bands").status_code == 401


def test_guessing_is_slowed_and_told(phone: Phone, networked: Flask) -> None:
    tries = [phone.post("/api/door/enter", {"passphrase": "no", "name": "x"}) for _ in range(6)]
    assert [t.status_code for t in tries] == [403] * 5 + [429]
    assert tries[-1].headers["Retry-After"] == "15"
    assert "wait 15 s" in tries[-1].get_json()["detail"]
    assert phone.post("/api/door/join", {"code": "12345678"}).status_code == 429
    right = phone.post("/api/door/enter", {"passphrase": WORDS, "name": "x"})
    assert right.status_code == 429, "a right guess while waiting tells nothing"


def test_another_origin_and_another_name_are_refused_over_https_too(
    phone: Phone, shop: FlaskClient
) -> None:
    phone.join(shop, "anyone")
    for origin in ("https://evil.example", "http://192.168.1.7:8480", "null"):
        headers = {"Origin": origin}
        come = phone.come | {"headers": headers}
        answer = phone.client.post("/api/copies", json={}, **come)
        assert (answer.status_code, answer.get_json()["code"]) == (403, "origin")
    come = phone.come | {"base_url": "https://rebound.example"}
    assert phone.client.get("/api/door", **come).status_code == 403


def test_a_reserved_step_is_done_on_an_authorised_device_only(
    networked: Flask, shop: FlaskClient
) -> None:
    """A name given does not make a device an authorised one."""
    setting = {"version": 1, "reserved": ["band_change"], "authorised": ["Brill"]}
    version = shop.get("/api/setting-up").get_json()["version"]
    assert shop.patch("/api/setting-up", json={**setting, "version": version}).status_code == 200
    setup = shop.post("/api/setups", json={"job_id": 1, "band_id": 1}).get_json()["id"]
    isolated = {"key": "isolate", "done": True}
    assert shop.post(f"/api/setups/{setup}/steps", json=isolated).status_code == 200
    body = {"key": "mount", "done": True, "authorised_by": "Brill"}
    anyone = Phone(networked).join(shop, "anyone")
    refused = anyone.post(f"/api/setups/{setup}/steps", body)
    assert refused.status_code == 403
    assert "this device joined for anyone's use" in refused.get_json()["detail"]
    around = anyone.post("/api/saws/1/mount", {"band_id": 1, "who": "Brill"})
    assert around.status_code == 403, "no way round by mounting without a card"
    authorised = Phone(networked).join(shop, "authorised")
    assert authorised.post(f"/api/setups/{setup}/steps", body).status_code == 200


def test_what_the_owner_changed_is_not_taken_back_by_others(
    networked: Flask, shop: FlaskClient
) -> None:
    shop.patch("/api/shop", json={"version": 1, "name": "Yard"})
    deed = shop.get("/api/changes").get_json()[0]["id"]
    anyone = Phone(networked).join(shop, "anyone")
    refused = anyone.post(f"/api/changes/{deed}/undo")
    assert refused.status_code == 403
    assert refused.get_json()["detail"] == "This is taken back on the owner's device only."
    band = anyone.post("/api/bands", {**BAND, "label": "P-1"})
    assert band.status_code == 201
    own = anyone.get("/api/changes").get_json()[0]["id"]
    assert anyone.post(f"/api/changes/{own}/undo").status_code == 200


def test_a_copy_brought_back_lets_no_device_back_in(phone: Phone, shop: FlaskClient) -> None:
    phone.join(shop, "anyone")
    taken = shop.post("/api/copies", json={}).get_json()["name"]
    (device,) = shop.get("/api/doors").get_json()["devices"]
    shop.post("/api/doors/shut-out", json={"id": device["id"]})
    assert shop.post("/api/copies/restore", json={"name": taken}).status_code == 200
    assert phone.get("/api/bands").status_code == 401


def test_this_machine_needs_no_joining(shop: FlaskClient) -> None:
    told = shop.get("/api/door").get_json()
    assert (told["here"], told["joined"], told["role"]) == ("machine", True, "owner")
    doors = shop.get("/api/doors").get_json()
    assert doors["on"] is False
    assert doors["reach"][1] == {
        "where": "the shop's network",
        "address": "",
        "what": "nothing",
    }
