"""When a run was: by the time that passed since, whatever a device's clock says."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from jade_ribbon.core.quantities.words import figure

TimeDoubt = Literal["", "before_band", "old", "clock"]

CLOCK_OFF = timedelta(hours=2)
"""A device's clock so far from the shop's is off: less is a time zone's or a minute's matter."""
OLD = timedelta(days=60)
"""Nobody writes a run down so late without a reason."""


@dataclass(frozen=True)
class RunTime:
    """When a run was, and what is to be asked of it."""

    at: datetime
    doubt: TimeDoubt


def run_time(
    *,
    now: datetime,
    device_at: datetime | None,
    waited_s: float | None,
    band_came: datetime,
) -> RunTime:
    """The time of a run: so long ago as it waited; else by the device's clock, never in the future.

    >>> from datetime import UTC
    >>> noon = datetime(2026, 3, 1, 12, tzinfo=UTC)
    >>> came = datetime(2026, 1, 1, tzinfo=UTC)
    >>> run_time(now=noon, device_at=noon, waited_s=3600.0, band_came=came).at.hour
    11
    """
    given = now if device_at is None else min(device_at, now)
    at = given if waited_s is None else now - timedelta(seconds=waited_s)
    if at < band_came:
        return RunTime(at, "before_band")
    if now - at > OLD:
        return RunTime(at, "old")
    if device_at is not None and abs(device_at - at) > CLOCK_OFF:
        return RunTime(at, "clock")
    return RunTime(at, "")


def asked_of_time(
    doubt: TimeDoubt, *, at: datetime, device_at: datetime | None, band_came: datetime
) -> str:
    """What is asked of a run's time before it is believed; nothing of a plain one."""
    if doubt == "before_band":
        return f"It is of {at:%Y-%m-%d}, before the band came ({band_came:%Y-%m-%d}); really?"
    if doubt == "old":
        return f"It is of {at:%Y-%m-%d}, long ago; really?"
    if doubt == "clock" and device_at is not None:
        hours = (device_at - at).total_seconds() / 3600.0
        side = "ahead" if hours > 0.0 else "behind"
        off = figure(abs(hours), 2)
        return f"The device's clock is {off} h {side}; it is put where it was by the time passed."
    return ""
