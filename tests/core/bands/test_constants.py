"""What a band is held to when it comes, and how a hard edge is broken in: pinned constants."""

import dataclasses

import pytest

from jade_ribbon.core.bands import break_in, facts, incoming_inspection, reach
from jade_ribbon.core.bands.incoming_inspection import ArrivalFigures, SoldAs, look_over
from jade_ribbon.core.saw_defaults.kinds import starting_kinds
from jade_ribbon.reference.tables import steels, tooth_forms
from tests.support.pins import Pin, held

SOLD = SoldAs(3360.0, 19.0, 0.8, 4.0, 4.0, 0.5)
EVEN = (0.5, 0.5, 0.5, 0.5, 0.5)
FIVE = {"set_left_mm": EVEN, "set_right_mm": EVEN}


def verdict(key: str, **measured: object) -> str:
    """What one finding says of a band of 3360 x 19 x 0.8, 4 TPI, set half a millimetre."""
    figures = ArrivalFigures(**(FIVE | measured))  # type: ignore[arg-type]
    return next(f.verdict for f in look_over(SOLD, figures).findings if f.key == key)


def scattered(by: float) -> tuple[float, ...]:
    """Five teeth of a mean set of half a millimetre whose standard deviation is `by`."""
    return tuple(0.5 + by * step for step in (-1.26491, -0.632456, 0.0, 0.632456, 1.26491))


def frame_N(kind: str) -> float:
    saw = next(k.saw for k in starting_kinds() if k.key == kind)
    return reach.frame_force_N(dataclasses.replace(saw, wheel_force_max_N=None))


def whole_cuts_left() -> float:
    return break_in.left_share("bimetal", cut_mm2=15_000.0, cut_s=0.0)


PINS = (
    # Five teeth a side are told, four are not; with eight asked for nothing is.
    Pin(incoming_inspection, "TEETH_WANTED", lambda: verdict("set"), "right"),
    # 6 mm off in 3360: the share of two in a thousand is 6.7 mm; 9 mm is over it.
    Pin(incoming_inspection, "LENGTH_OFF", lambda: verdict("length", length_mm=3369.0), "claim"),
    Pin(incoming_inspection, "WIDTH_OFF_MM", lambda: verdict("width", width_mm=19.6), "claim"),
    # 6 % of 0.8 mm are 0.048: 0.06 is over.
    Pin(
        incoming_inspection,
        "THICKNESS_OFF",
        lambda: verdict("thickness", thickness_mm=0.86),
        "claim",
    ),
    # 2 % of 6.35 mm are 0.127: 0.15 is over.
    Pin(incoming_inspection, "PITCH_OFF", lambda: verdict("pitch", pitch_mm=6.5), "claim"),
    # A fifth of half a millimetre is 0.1: a set of 0.38 is 0.12 short.
    Pin(
        incoming_inspection,
        "SET_OFF",
        lambda: verdict("set", set_left_mm=(0.38,) * 5, set_right_mm=(0.38,) * 5),
        "claim",
    ),
    # Left over right by 0.07, without scatter.
    Pin(
        incoming_inspection,
        "UNEVEN_MM",
        lambda: verdict("even", set_left_mm=(0.57,) * 5),
        "claim",
    ),
    # 15 % of 0.5 mm are 0.075: teeth that scatter by 0.09.
    Pin(
        incoming_inspection,
        "SCATTER_OFF",
        lambda: verdict("scatter", set_left_mm=scattered(0.09)),
        "claim",
    ),
    Pin(
        incoming_inspection,
        "BACK_BOW_MM_PER_M",
        lambda: verdict("back", back_bow_mm=0.6),
        "claim",
    ),
    # 0.14 apart, each side scattering by 0.09: doubt 0.057; 0.14 - 2 x 0.057 = 0.026 is not over
    # 0.05, and 0.14 itself is: nobody can tell. At half a sigma less it would be a claim.
    Pin(
        incoming_inspection,
        "SURE",
        lambda: verdict(
            "even",
            set_left_mm=tuple(s + 0.2 for s in scattered(0.09)),
            set_right_mm=scattered(0.09),
        ),
        "claim",
    ),
    # 150 cm2 of 300: half of the breaking in is left.
    Pin(break_in, "BREAK_IN_MM2", whole_cuts_left, 0.5),
    # A quarter of half an hour gone.
    Pin(
        break_in,
        "BREAK_IN_S",
        lambda: break_in.left_share("bimetal", cut_mm2=0.0, cut_s=450.0),
        0.75,
    ),
    Pin(break_in, "NEW_UNDER", lambda: break_in.is_new(sharpenings=0, judged=0.12), False),
    # A tenth of what teeth need.
    Pin(
        facts,
        "FINE_EDGE_LEAST_SHARE",
        lambda: facts.least_bite_share(steels()["carbide_grit"], tooth_forms()["grit_continuous"]),
        0.1,
    ),
    # The metal saw of the table: its widest band's section at 270 MPa.
    Pin(reach, "METAL_SAW_MPA", lambda: frame_N("metal"), 270.0 * 27.0 * 0.9),
)


@pytest.mark.parametrize("pin", PINS, ids=str)
def test_a_constant_decides(pin: Pin, monkeypatch: pytest.MonkeyPatch) -> None:
    held(pin, monkeypatch)
