"""The example job file, and the band of the small shop."""

from pathlib import Path
from typing import Any

from flask.testing import FlaskClient
from werkzeug.test import TestResponse

DATA = Path(__file__).parents[1] / "data"
VECTORS = Path(__file__).parents[1] / "vectors"
JOB_FILE = DATA / "job.json"
BAND = {
    "label": "K-07",
    "width_mm": 19,
    "thickness_mm": 0.81,
    "tpi_lo": 2,
    "tpi_hi": 2,
    "form": "hook",
    "steel": "silicon_steel",
    "length_mm": 3360,
}


class OurClient(FlaskClient):
    """Posts as our own pages do: what has no body says that it would be JSON."""

    def post(self, *args: Any, **kw: Any) -> TestResponse:
        if not kw.keys() & {"json", "data", "content_type", "headers"}:
            kw["content_type"] = "application/json"
        return super().post(*args, **kw)
