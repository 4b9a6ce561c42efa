"""Where a wheel's gap is read, and which bolt or shim answers it, by how the saw is built."""

from dataclasses import dataclass
from typing import Literal, get_args

from jade_ribbon.core.job import Saw
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.setup.fittings import Fittings

Axis = Literal["tilt", "toe", "offset"]
Wheel = Literal["upper", "lower", "third", "left", "right"]

USUAL_OCLOCK = {
    ("upper", "tilt"): 6,
    ("lower", "tilt"): 6,
    ("third", "tilt"): 6,
    ("left", "tilt"): 3,
    ("right", "tilt"): 9,
    ("upper", "toe"): 9,
    ("lower", "toe"): 9,
    ("third", "toe"): 9,
    ("left", "toe"): 12,
    ("right", "toe"): 12,
}
"""Where the bolt usually stands, seen from the doors; a saw's own place is kept in its fittings."""

READ = {
    ("vertical", "tilt"): "straightedge upright across both wheels; gap at the top edge of the "
    "{wheel} wheel, positive when the wheel leans away from it there",
    ("vertical", "toe"): "straightedge level across the {wheel} wheel against one across the "
    "other; gap at the column side, positive when the wheel stands away there",
    ("vertical", "offset"): "straightedge upright on the two edges of the fixed wheel; gap at the "
    "middle of the {wheel} wheel, positive when that wheel stands back",
    ("horizontal", "tilt"): "straightedge level across both wheels; gap at the outer edge of the "
    "{wheel} wheel, positive when the wheel leans away from it there",
    ("horizontal", "toe"): "straightedge upright across the {wheel} wheel against one across the "
    "other; gap at the top edge, positive when the wheel stands away there",
    ("horizontal", "offset"): "straightedge level on the two edges of the fixed wheel; gap at the "
    "middle of the {wheel} wheel, positive when that wheel stands back",
}


@dataclass(frozen=True)
class Place:
    """Where a gap is read and what moves it; `oclock` 1..12 seen from the doors, None: shims."""

    read: str
    bolt: str
    oclock: int | None


def wheels_of(saw: Saw) -> tuple[Wheel, ...]:
    """The wheels of a saw, by the names they are read under."""
    if saw.orientation == "horizontal":
        return ("left", "right")
    return ("upper", "lower", "third") if saw.wheels == 3 else ("upper", "lower")


AXES: tuple[Axis, ...] = get_args(Axis)


def axis_words(axis: Axis, saw: Saw) -> str:
    """What a wheel does about an axis, and where its gap is read, as it is chosen by."""
    lying = saw.orientation == "horizontal"
    if axis == "tilt":
        return f"leans: gap at {'its outer or inner edge' if lying else 'top or bottom'}"
    if axis == "toe":
        return f"toes in or out: gap at {'top or bottom' if lying else 'one side'}"
    return "stands in front or behind"


def check_wheel(wheel: Wheel, saw: Saw) -> None:
    """Raises InputError for a wheel this saw has not."""
    if wheel not in wheels_of(saw):
        accepted = ", ".join(wheels_of(saw))
        raise refuse("wheel", f"{wheel!r} is no wheel of this saw; accepted: {accepted}", wheel)


def place_of(*, axis: Axis, wheel: Wheel, saw: Saw, fittings: Fittings) -> Place:
    """Where to read a wheel's gap and what to turn for it.

    A bolt's place is the saw's own where its fittings has it, else the usual one.
    """
    read = READ[saw.orientation, axis].format(wheel=wheel)
    if axis == "offset":
        shims = f"{wheel} hub, shims behind the bearing: a turn stands for 1 mm of shim"
        return Place(read, shims, None)
    own = fittings.tilt_bolt_oclock if axis == "tilt" else fittings.toe_bolt_oclock
    oclock = own or USUAL_OCLOCK[wheel, axis]
    whose = "" if own else ", where it usually stands"
    return Place(
        read, f"{wheel} shaft, bolt at {oclock} o'clock seen from the doors{whose}", oclock
    )
