"""Copies of a shop's file: kept by age, checked, brought back through the live file."""

import shutil
from collections import Counter
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import select

from jade_ribbon.store.copies import AHEAD, MOST_DROPPED, Copies, Copy, kept, too_old
from jade_ribbon.store.database import Store
from jade_ribbon.store.files import UnusableFileError
from jade_ribbon.store.models import ShopRow

START = datetime(2026, 1, 1, 9, 30, tzinfo=UTC)


@pytest.fixture
def copies(empty_file: Path, tmp_path: Path) -> Copies:
    return Copies(Store(Path(shutil.copy(empty_file, tmp_path / "shop.sqlite"))))


def named(store: Store) -> str:
    with store.read() as session:
        row = session.scalars(select(ShopRow)).first()
    return row.name if row else ""


def name_it(store: Store, name: str) -> None:
    with store.write() as session:
        row = session.get(ShopRow, 1)
        if row is None:
            row = ShopRow(id=1, units="metric", currency="€", gauge_length_mm=100, version=1)
            row.rules, row.rates, row.people = {}, {}, []
            session.add(row)
        row.name = name


def test_a_year_of_days_leaves_days_weeks_and_months(copies: Copies) -> None:
    """Day by day, as it is lived: what is dropped on one day is not missed on a later one."""
    days: set[date] = set()
    for n in range(430):
        today = (START + timedelta(days=n)).date()
        days = kept(days | {today}, today)
    ages = sorted((today - d).days for d in days)
    assert ages[:7] == [0, 1, 2, 3, 4, 5, 6]
    weekly = [d for d in days if 7 <= (today - d).days < 35]
    assert 4 <= len(weekly) <= 6
    by_month = Counter((d.year, d.month) for d in days)
    assert len(by_month) == 12
    assert len(days) <= 7 + 6 + 12


@given(st.sets(st.dates(date(2024, 1, 1), date(2026, 12, 31)), min_size=1), st.dates())
def test_the_newest_copy_is_never_dropped_and_none_is_made_up(days: set[date], today: date) -> None:
    keep = kept(days, today)
    assert max(days) in keep
    assert keep <= days
    assert kept(keep, today) == keep


def test_a_clock_set_back_drops_nothing(copies: Copies) -> None:
    days = {date(2026, 5, 1) + timedelta(days=n) for n in range(7)}
    assert kept(days, date(1999, 1, 1)) == days


@given(st.sets(st.dates(date(2024, 1, 1), date(2026, 6, 1)), min_size=1), st.integers(1, 4000))
def test_a_clock_set_ahead_makes_nothing_older(days: set[date], ahead: int) -> None:
    assert kept(days, max(days)) == kept(days, max(days) + timedelta(days=ahead))


def copy_of(day: date, why: str = "daily") -> Copy:
    return Copy(f"{day}{why}", datetime(day.year, day.month, day.day, 9, tzinfo=UTC), why, 1)


def test_few_go_in_a_round_none_made_by_hand_and_none_while_the_clock_is_off() -> None:
    start = date(2026, 1, 1)
    days = [start + timedelta(days=n) for n in range(200)]
    known = [copy_of(d) for d in reversed(days)]
    hand = [copy_of(d, why) for d in days for why in ("by hand", "rescued")]
    newest = datetime(2026, 7, 19, tzinfo=UTC)
    gone = too_old([*known, *hand], days[-1], newest)
    assert [c.at.date() for c in gone] == days[: len(gone)] and len(gone) == MOST_DROPPED
    assert {c.why for c in gone} == {"daily"}
    assert too_old(known, days[-1], newest - AHEAD - timedelta(days=1)) == []


def test_a_start_two_years_ahead_leaves_every_copy(copies: Copies) -> None:
    """One start with a wrong clock, then right ones: none is deleted as it is taken."""
    copies = Copies(copies.store, newest_record=lambda _: START + timedelta(days=9))
    for n in range(7):
        copies.keep_up(START + timedelta(days=n))
    copies.take(START + timedelta(days=2), "by-hand")
    before = {c.name for c in copies.all()}
    copies.keep_up(START + timedelta(days=730))
    assert before < {c.name for c in copies.all()}
    taken = copies.keep_up(START + timedelta(days=8))
    assert taken is not None and taken.name in {c.name for c in copies.all()}
    copies.keep_up(START + timedelta(days=9))
    assert taken.name in {c.name for c in copies.all()}


def test_one_copy_a_day_and_old_ones_go(copies: Copies) -> None:
    assert copies.keep_up(START) is not None
    assert copies.keep_up(START + timedelta(hours=3)) is None
    for n in range(1, 60):
        assert copies.keep_up(START + timedelta(days=n)) is not None
    found = copies.all()
    assert found[0].at == START + timedelta(days=59)
    assert len(found) <= 7 + 6 + 3
    assert all(c.why == "daily" for c in found)


def test_a_copy_is_brought_back_while_the_shop_is_open(copies: Copies) -> None:
    """What was, is again; what was there meanwhile is in a copy; sessions go on."""
    name_it(copies.store, "Before")
    taken = copies.take(START, "by-hand")
    name_it(copies.store, "After")
    with copies.store.read() as looking:
        assert looking.scalars(select(ShopRow)).one().name == "After"
        looking.rollback()
        before = copies.restore(copies.path(taken.name), START + timedelta(minutes=1))
    assert named(copies.store) == "Before"
    assert before.why == "before restore"
    name_it(copies.store, "Written after the restore")
    copies.restore(copies.path(before.name), START + timedelta(minutes=2))
    assert named(copies.store) == "After"


def test_a_damaged_copy_is_refused_and_nothing_changes(copies: Copies) -> None:
    name_it(copies.store, "Mine")
    taken = copies.take(START)
    path = copies.path(taken.name)
    path.write_bytes(path.read_bytes()[:5000])
    with pytest.raises(UnusableFileError):
        copies.restore(path, START)
    assert named(copies.store) == "Mine"


@pytest.mark.parametrize(
    "name", ["../shop.sqlite", "2026-01-01-093000000000.sqlite", "/etc/passwd", "x.sqlite", ""]
)
def test_only_names_of_copies_are_looked_up(copies: Copies, name: str) -> None:
    with pytest.raises(FileNotFoundError):
        copies.path(name)


def test_a_failed_copy_is_told_until_one_is_taken(copies: Copies) -> None:
    copies.folder.write_text("in the way")
    with pytest.raises(OSError, match="exists"):
        copies.keep_up(START)
    assert "exists" in copies.failure
    copies.folder.unlink()
    copies.keep_up(START)
    assert copies.failure == ""
