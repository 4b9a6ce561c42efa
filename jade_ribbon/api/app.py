"""The Flask application."""

from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from flask import Flask, Response
from flask_compress import Compress

from jade_ribbon.api.doors.guard import guard_doors
from jade_ribbon.api.problems import handle_problems
from jade_ribbon.api.respond import MOST_JSON_BYTES, mount_operations, mount_sheets
from jade_ribbon.api.routes import OPERATIONS, PERMISSIONS, SHEETS
from jade_ribbon.api.same_origin import guard
from jade_ribbon.services import clock
from jade_ribbon.services.doors.doors import Doors
from jade_ribbon.services.keeping.sample import SampleYard
from jade_ribbon.services.rack.replay import bring_up
from jade_ribbon.services.setup.instruments import Instruments
from jade_ribbon.store.copies import Copies
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import opened

CSP = (
    "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; "
    "img-src 'self' data:; font-src 'self'; connect-src 'self'; object-src 'none'; "
    "base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)


def create_app(file: Path | str) -> Flask:
    """The application on a shop's file, migrated to the newest schema."""
    app = make_app()
    open_file(app, Path(file))
    return app


def open_file(
    app: Flask, file: Path, came: Callable[[int, int], None] = lambda _done, _of: None
) -> None:
    """Put an application on a shop's file; instruments start anew. `came` is told how far it is."""
    store = opened(file)
    store.keep_open()
    bring_up(store, came)
    with store.read() as session:
        clock.begin(session)
    app.extensions["store"] = store
    app.extensions["copies"] = Copies(store, bring_up, _newest_record)
    app.extensions["doors"] = Doors(file)
    app.extensions["sample"] = SampleYard(file)
    app.extensions["instruments"] = Instruments()


def _newest_record(store: Store) -> datetime | None:
    with store.read() as session:
        return clock.newest(session)


def make_app() -> Flask:
    """The application with all its routes, on no file yet."""
    app = Flask(__name__, static_folder=None)
    app.config["MAX_CONTENT_LENGTH"] = MOST_JSON_BYTES
    app.url_map.strict_slashes = False
    handle_problems(app)
    guard(app)
    guard_doors(app)
    mount_operations(app, OPERATIONS)
    mount_sheets(app, SHEETS)
    app.extensions["operations"] = OPERATIONS
    app.extensions["permissions"] = PERMISSIONS
    app.after_request(_protect)
    # No secret stands in a body beside what somebody else may have put there.
    Compress(app)
    return app


def _protect(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = CSP
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    response.headers["Referrer-Policy"] = "no-referrer"
    response.headers["Permissions-Policy"] = "microphone=(self), camera=(self), geolocation=()"
    return response
