"""The application itself, as files."""

from pathlib import Path

from flask import Response, send_from_directory

STATIC = Path(__file__).parent.parent / "static"
YEAR_S = 31_536_000


def index() -> Response:
    """The page that is the application."""
    return send_from_directory(STATIC, "index.html", max_age=0)


def asset(name: str) -> Response:
    """A part of it; those named by what is in them are kept for good."""
    return send_from_directory(STATIC, name, max_age=YEAR_S if "assets/" in name else 0)
