"""The Flask application."""

from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from flask import Flask, Response, jsonify, send_from_directory
from flask_compress import Compress

from jade_ribbon.api import views  # noqa: F401 - registers the operations
from jade_ribbon.api.document import document
from jade_ribbon.api.doors.doors import authority_file
from jade_ribbon.api.doors.guard import guard_doors
from jade_ribbon.api.keeping.keeping import export_zip, whole_file
from jade_ribbon.api.operations import MOST_JSON_BYTES, mount_operations
from jade_ribbon.api.problems import handle_problems
from jade_ribbon.api.sheets import (
    card_sheet,
    labels_pdf,
    marks_pdf,
    money_sheet,
    photo_jpeg,
    records_csv,
    setup_pdf,
    sound_wav,
)
from jade_ribbon.api.strangers import guard
from jade_ribbon.services import clock
from jade_ribbon.services.doors.doors import Doors
from jade_ribbon.services.keeping.sample import SampleYard
from jade_ribbon.services.rack.replay import bring_up
from jade_ribbon.services.setup.instruments import Instruments
from jade_ribbon.store.copies import Copies
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import opened

STATIC = Path(__file__).parent.parent / "static"
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
    mount_operations(app)
    _serve_pages(app)
    _serve_sheets(app)
    app.after_request(_protect)
    # No secret stands in a body beside what somebody else may have put there.
    Compress(app)
    return app


def _serve_sheets(app: Flask) -> None:
    @app.get("/labels.pdf")
    def band_labels() -> Response:
        return labels_pdf()

    @app.get("/files/<table>.csv")
    def records(table: str) -> Response:
        return records_csv(table)

    @app.get("/sounds/<key>.wav")
    def sound(key: str) -> Response:
        return sound_wav(key)

    @app.get("/money.csv")
    def money() -> Response:
        return money_sheet()


def _serve_pages(app: Flask) -> None:
    @app.get("/api/openapi.json")
    def openapi() -> Response:
        return jsonify(document())

    @app.get("/radius-card.<kind>")
    def radius_sheet(kind: str) -> Response:
        return card_sheet(kind)

    @app.get("/setups/<int:setup_id>.pdf")
    def setup_sheet(setup_id: int) -> Response:
        return setup_pdf(setup_id)

    @app.get("/api/stock/<int:stock_id>/marks.pdf")
    def mark_sheet(stock_id: int) -> Response:
        return marks_pdf(stock_id)

    @app.get("/api/photos/<int:photo_id>.jpg")
    def photo(photo_id: int) -> Response:
        return photo_jpeg(photo_id)

    @app.get("/authority.crt")
    def authority() -> Response:
        return authority_file()

    @app.get("/export.zip")
    def everything() -> Response:
        return export_zip()

    @app.get("/shop.sqlite")
    def file_itself() -> Response:
        return whole_file()

    @app.get("/")
    def index() -> Response:
        return send_from_directory(STATIC, "index.html", max_age=0)

    @app.get("/<path:name>")
    def asset(name: str) -> Response:
        return send_from_directory(STATIC, name, max_age=31_536_000 if "assets/" in name else 0)


def _protect(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = CSP
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    response.headers["Referrer-Policy"] = "no-referrer"
    response.headers["Permissions-Policy"] = "microphone=(self), camera=(self), geolocation=()"
    return response
