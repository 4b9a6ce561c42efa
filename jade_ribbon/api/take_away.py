"""Files to take away: everything as CSV, and the whole file itself."""

import re
import shutil
import tempfile
from collections.abc import Iterator
from functools import partial
from pathlib import Path

from flask import Response

from jade_ribbon.api.respond import store
from jade_ribbon.api.streams import sent_in_parts, streamed
from jade_ribbon.formats.tables_csv import PART_BYTES
from jade_ribbon.services.clock import now
from jade_ribbon.services.keeping.export import export_all
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.files import backup


def _named(ending: str) -> str:
    """A name for a file taken away: the shop's, in plain letters, and the day."""
    with store().read() as session:
        name = re.sub(r"[^a-z0-9]+", "-", read_shop(session).name.lower()).strip("-")
    return f"{name or 'shop'}-{now():%Y-%m-%d}{ending}"


def export_zip() -> Response:
    """Everything as CSV, one file a table, in one archive."""
    return streamed(store(), export_all, name=_named(".zip"), mimetype="application/zip")


def whole_file() -> Response:
    """A checked copy of the whole file, as `restore` takes it."""
    folder = Path(tempfile.mkdtemp(prefix="jade-ribbon-"))
    target = folder / "shop.sqlite"
    away = partial(shutil.rmtree, folder, ignore_errors=True)
    try:
        store().check_there()
        backup(store().file, target)
    except BaseException:
        away()
        raise

    def parts() -> Iterator[bytes]:
        with target.open("rb") as copy:
            while part := copy.read(PART_BYTES):
                yield part

    answer = sent_in_parts(parts(), name=_named(".sqlite"), mimetype="application/vnd.sqlite3")
    answer.call_on_close(away)
    return answer
