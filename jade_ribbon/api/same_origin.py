"""Who may ask: this machine's own names and pages only. No page from elsewhere writes or reads.

A browser sends requests of any page to any address, also to this machine. What gives such a page
away is what the browser itself says of it: the name it asked for (Host), where it comes from
(Origin, Sec-Fetch-Site), and that a form cannot send JSON.
"""

from collections.abc import Iterable
from urllib.parse import urlsplit

from flask import Flask, Response, current_app, request

from jade_ribbon.api.problems import problem_answer

LOOPBACK = ("127.0.0.1", "localhost", "[::1]")
READING = ("GET", "HEAD", "OPTIONS")
PAGES = ("index", "asset")
"""What a link from anywhere may open: the application itself, and nothing that is work."""
OWN_SITE = ("same-origin", "none")
"""What a browser says of a request from our own pages, or typed by the person in front of it."""


def name_of(host: str) -> str:
    """The name in a Host header, its port left out, in small letters.

    >>> name_of("Localhost:8433"), name_of("[::1]:80"), name_of("rebound.example")
    ('localhost', '[::1]', 'rebound.example')
    """
    if host.startswith("["):
        return host.split("]")[0].lower() + "]"
    return host.rsplit(":", 1)[0].lower() if ":" in host else host.lower()


def allow_hosts(app: Flask, names: Iterable[str]) -> None:
    """Names that this application answers to, beside this machine's own."""
    app.config["ALLOWED_HOSTS"] = frozenset((*LOOPBACK, *(name.lower() for name in names)))


def refuse_strangers() -> Response | None:
    """A problem for a request that our own pages would not send; None for one that they would."""
    if name_of(request.host) not in current_app.config["ALLOWED_HOSTS"]:
        return problem_answer(
            403, "host", f"This is not {request.host}: use the address it was started at."
        )
    site, origin = request.headers.get("Sec-Fetch-Site"), request.headers.get("Origin")
    if request.method in READING:
        if site in (None, *OWN_SITE) or request.endpoint in PAGES:
            return None
        return problem_answer(
            403, "origin", "A page of another site may not ask for anything here."
        )
    if site is not None and site not in OWN_SITE:
        return problem_answer(403, "origin", "A page of another site may not change anything here.")
    if origin is not None and urlsplit(origin).netloc.lower() != request.host.lower():
        return problem_answer(403, "origin", f"A page of {origin} may not change anything here.")
    return None


def guard(app: Flask, names: Iterable[str] = ()) -> None:
    """Refuse strangers before any route is looked at."""
    allow_hosts(app, names)
    app.before_request(refuse_strangers)
