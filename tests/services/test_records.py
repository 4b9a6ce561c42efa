"""The change log that undo stands on."""

import pytest
from sqlalchemy import select

from jade_ribbon.services.errors import ConflictError, NotFoundError
from jade_ribbon.services.rack import bands
from jade_ribbon.services.records import (
    NOUNS,
    PROJECTIONS,
    as_record,
    begin_deed,
    bring_back,
    get,
    log_change,
)
from jade_ribbon.services.undo import changes, undo
from jade_ribbon.store.database import Store
from jade_ribbon.store.models import ChangeRow
from tests.support.stores import GIVEN


def test_a_snapshot_brings_a_row_back_whole(store: Store) -> None:
    with store.write() as session:
        row = get(session, "band", 1)
        before = as_record(row)
        row.label, row.width_mm, row.last_run_at = "changed", 5.0, None
        bring_back(row, before)
        assert as_record(row) == before


def test_undo_goes_back_and_is_a_change_itself(store: Store) -> None:
    with store.write() as session:
        bands.edit_band(session, 1, GIVEN.model_copy(update={"place": "loft"}))
        change = session.scalars(select(ChangeRow).order_by(ChangeRow.id.desc())).first()
        assert change is not None
        undo(session, change.id)
        assert get(session, "band", 1).place == ""
        told = changes(session, noun="band", noun_id=1)
        assert [d.changes[0].action for d in told] == ["undo", "edit", "add"]
        line = told[0].changes[0].changed[0]
        assert (line.field, line.before, line.after) == ("place", "loft", "nothing")
        with pytest.raises(ConflictError, match="undone already"):
            undo(session, change.id)


def test_undoing_an_addition_takes_it_away(store: Store) -> None:
    with store.write() as session:
        begin_deed(session)
        undo(session, 1)
        with pytest.raises(NotFoundError, match="There is no band 1"):
            get(session, "band", 1)
        assert bands.list_bands(session) == []


def test_an_older_change_waits_for_the_later(store: Store) -> None:
    with store.write() as session:
        bands.edit_band(session, 1, GIVEN.model_copy(update={"place": "loft"}))
        bands.edit_band(session, 1, GIVEN.model_copy(update={"place": "shed"}))
        with pytest.raises(ConflictError, match="undo that one first"):
            undo(session, 3)
        undo(session, 4)
        undo(session, 3)
        assert get(session, "band", 1).place == ""


def test_a_failed_write_leaves_nothing_behind(store: Store) -> None:
    def half_a_write() -> None:
        with store.write() as session:
            row = get(session, "band", 1)
            before = as_record(row)
            row.label = "half done"
            log_change(session, row, "edit", before)
            raise RuntimeError

    with pytest.raises(RuntimeError):
        half_a_write()
    with store.read() as session:
        assert get(session, "band", 1).label == "K-07"
        told = changes(session, noun="band", noun_id=1)
        assert [d.changes[0].action for d in told] == ["add"]


def test_unknown_things_are_told(store: Store) -> None:
    with store.read() as session:
        with pytest.raises(NotFoundError):
            undo(session, 999)
        with pytest.raises(ValueError, match="'hat' is not accepted"):
            changes(session, noun="hat", noun_id=1)
        assert set(NOUNS) >= {"saw", "band", "job", "run", "material"}


def test_what_follows_a_record_is_registered_by_noun() -> None:
    """Runs and events move their band's counters, truings their saw's, whoever changes them."""
    assert set(PROJECTIONS) == {"run", "event", "alignment", "face"}
