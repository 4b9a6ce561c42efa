"""Copies of the shop's file, everything as CSV, and the sample yard."""

import re
import shutil
import tempfile
from collections.abc import Iterator
from functools import partial
from pathlib import Path
from typing import Annotated

from flask import Response, current_app
from pydantic import Field
from sqlalchemy.orm import Session

from jade_ribbon.api.answers import sent_in_parts, streamed
from jade_ribbon.api.operations import operation, store
from jade_ribbon.formats.tables_csv import PART_BYTES
from jade_ribbon.formats.validation import Strict
from jade_ribbon.services import clock_set as clocks
from jade_ribbon.services.clock import begin, now
from jade_ribbon.services.keeping import copies as keeping
from jade_ribbon.services.keeping.export import export_all
from jade_ribbon.services.keeping.sample import SampleAnswer, SampleYard
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.copies import Copies
from jade_ribbon.store.files import backup


class RestoreInput(Strict):
    """Which copy is brought back."""

    name: Annotated[str, Field(min_length=1, max_length=80)]


def _copies() -> Copies:
    found: Copies = current_app.extensions["copies"]
    return found


def _sample() -> SampleYard:
    found: SampleYard = current_app.extensions["sample"]
    return found


@operation("GET", "/api/copies", answer=keeping.CopiesAnswer, beside=True, role="owner")
def list_copies() -> keeping.CopiesAnswer:
    """Copies of the shop's file, newest first."""
    return keeping.list_copies(_copies())


@operation("POST", "/api/copies", answer=keeping.CopyLine, status=201, beside=True, role="owner")
def take_copy() -> keeping.CopyLine:
    """Take a copy of the shop's file now."""
    return keeping.take_copy(_copies())


@operation(
    "POST",
    "/api/copies/restore",
    answer=keeping.Restored,
    body=RestoreInput,
    beside=True,
    role="owner",
)
def restore_copy(body: RestoreInput) -> keeping.Restored:
    """Bring a copy back over the live file; what was there is kept in another."""
    restored = keeping.bring_back(_copies(), body.name)
    with _copies().store.read() as session:
        begin(session)
    return restored


class ClockInput(Strict):
    """The jump of the machine's clock is right, or wrong; or it is right again."""

    said: clocks.Said


@operation("GET", "/api/clock", answer=clocks.ClockAnswer)
def read_clock(session: Session) -> clocks.ClockAnswer:
    """The shop's clock, and how far the machine's is from it."""
    return clocks.read_clock()


@operation("POST", "/api/clock", answer=clocks.ClockAnswer, body=ClockInput, role="owner")
def answer_clock(session: Session, body: ClockInput) -> clocks.ClockAnswer:
    """Say whether the machine's clock is right, or that it is again."""
    return clocks.answer_clock(session, body.said)


@operation("GET", "/api/sample-yard", answer=SampleAnswer, beside=True)
def sample_yard() -> SampleAnswer:
    """Whether the sample yard is there to look round in."""
    return _sample().answer()


@operation("POST", "/api/sample-yard", answer=SampleAnswer, beside=True, role="owner")
def make_sample_yard() -> SampleAnswer:
    """Make the sample yard, where it is not there yet."""
    return _sample().begin()


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
