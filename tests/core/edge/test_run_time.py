"""When a run was, and what is asked of it."""

from datetime import UTC, datetime, timedelta

import pytest

from jade_ribbon.core.edge.run_time import asked_of_time, run_time

NOW = datetime(2026, 3, 1, 12, tzinfo=UTC)
CAME = NOW - timedelta(days=400)
HOUR = timedelta(hours=1)


@pytest.mark.parametrize(
    ("device_at", "waited_s", "at", "doubt"),
    [
        (None, None, NOW, ""),
        (NOW - HOUR, None, NOW - HOUR, ""),
        (NOW + HOUR, None, NOW, ""),
        (NOW + 6 * HOUR, None, NOW, "clock"),
        (NOW - 6 * HOUR, 60.0, NOW - timedelta(minutes=1), "clock"),
        (NOW + 5 * HOUR, 3600.0, NOW - HOUR, "clock"),
        (NOW - HOUR, 3600.0, NOW - HOUR, ""),
        (datetime(1, 1, 1, tzinfo=UTC), None, datetime(1, 1, 1, tzinfo=UTC), "before_band"),
        (NOW - timedelta(days=90), None, NOW - timedelta(days=90), "old"),
        (None, 500 * 86_400.0, NOW - timedelta(days=500), "before_band"),
    ],
)
def test_a_run_is_put_where_the_time_that_passed_says(
    device_at: datetime | None, waited_s: float | None, at: datetime, doubt: str
) -> None:
    found = run_time(now=NOW, device_at=device_at, waited_s=waited_s, band_came=CAME)
    assert (found.at, found.doubt) == (at, doubt)
    words = asked_of_time(found.doubt, at=found.at, device_at=device_at, band_came=CAME)
    assert bool(words) == bool(doubt)


def test_a_clock_is_said_off_the_way_it_is() -> None:
    words = asked_of_time("clock", at=NOW, device_at=NOW - 6 * HOUR, band_came=CAME)
    assert "6.0 h behind" in words
