"""What holds of a kind of saw, as the rows of steps and taps ask for it."""

from collections.abc import Set

from jade_ribbon.core.job import Saw
from jade_ribbon.reference.rows import applies
from jade_ribbon.reference.tables import PreflightRow, preflight


def saw_tags(saw: Saw) -> Set[str]:
    """Upright or lying, a mill, a metal saw, one that feeds the work."""
    tags: set[str] = {saw.orientation}
    if saw.is_mill:
        tags.add("mill")
    if saw.is_metal_saw:
        tags.add("metal_saw")
    if saw.feed in ("power", "carriage"):
        tags.add("power_feed")
    return tags


def preflight_for(saw: Saw) -> tuple[PreflightRow, ...]:
    """The four taps before the start of this saw, in order."""
    tags = saw_tags(saw)
    return tuple(row for row in preflight() if applies(row.when, tags))
