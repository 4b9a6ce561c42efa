"""Who comes from where: this machine itself, or its network, where a device has to have joined."""

from flask import Flask, Response, current_app, g, request

from jade_ribbon.api.problems import problem_answer
from jade_ribbon.services.doors.doors import RANKS, Doors
from jade_ribbon.store.doors import Role

DOOR, NETWORK = "jade.door", "network"
COOKIE = "__Host-jade-ribbon"
"""Kept by a device's browser: sent over HTTPS only, to this address only, and read by no script."""
MAY: dict[Role, str] = {
    "anyone": "a device that joined",
    "authorised": "an authorised device",
    "owner": "the owner's device",
}


def doors() -> Doors:
    found: Doors = current_app.extensions["doors"]
    return found


def from_network() -> bool:
    """Whether a request came in from the network."""
    return bool(request.environ.get(DOOR) == NETWORK)


def who_comes() -> Response | None:
    """Note the role of whoever asks; a problem for one that may not."""
    g.role, g.device = "owner", None
    if not from_network():
        return None
    g.device = doors().device_of(request.cookies.get(COOKIE))
    g.role = "anyone" if g.device is None else doors().role_of(g.device)
    asked = current_app.extensions["permissions"].get(request.endpoint)
    if asked is None or asked.stranger:
        return None
    if g.device is None:
        return problem_answer(401, "join", "This device has not joined the shop, or was shut out.")
    if RANKS[g.role] < RANKS[asked.role]:
        return problem_answer(403, "not_allowed", f"This is for {MAY[asked.role]} only.")
    return None


def guard_doors(app: Flask) -> None:
    """Look at every request before any route is taken."""
    app.before_request(who_comes)
