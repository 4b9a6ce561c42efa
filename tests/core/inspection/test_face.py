"""A face read: its parts found in noise, its verdicts held to what was read, one change advised."""

import dataclasses
import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jade_ribbon.core.inspection.advice import FaceAdvice, SetFigures, advise_on, eased_feed_m_min
from jade_ribbon.core.inspection.face import GAUGE_SD_MM, Face, read_face, verdict_of
from jade_ribbon.core.quantities.words import metric

NINE = [(x, y) for x in (0.0, 0.5, 1.0) for y in (-1.0, 0.0, 1.0)]
FOUR = [(x, y) for x in (0.0, 1.0) for y in (-1.0, 1.0)]
SET = SetFigures(
    length_mm=3600.0,
    height_mm=180.0,
    tolerance_mm=0.8,
    feed_m_min=2.0,
    floor_m_min=0.5,
    size_exponent_m=0.35,
    dullness=0.2,
    stress_MPa=120.0,
    high_MPa=165.0,
    kerf_mm=1.4,
    fence_bolt_spacing_mm=400.0,
)


def board(
    places: list[tuple[float, float]],
    taper: float = 0.0,
    lean: float = 0.0,
    barrel: float = 0.0,
    noise: list[float] | None = None,
) -> list[list[float]]:
    """Readings of a planted board of 14 mm."""
    return [
        [x, y, 14 + taper * (x - 0.5) + lean / 2 * y + barrel * (1 / 3 - y * y) + n]
        for (x, y), n in zip(places, noise or [0.0] * len(places), strict=True)
    ]


def face(readings: list[list[float]], tolerance_mm: float = 0.8) -> Face:
    return read_face(readings, tolerance_mm=tolerance_mm)


@given(st.floats(-2, 2), st.floats(-2, 2), st.floats(-2, 2))
def test_planted_parts_are_found(taper: float, lean: float, barrel: float) -> None:
    found = face(board(NINE, taper, lean, barrel))
    for key, want in (("taper", taper), ("lean", lean), ("barrel", barrel)):
        part = found.part(key)  # type: ignore[arg-type]
        assert part is not None and part.amount_mm == pytest.approx(want, abs=1e-9)


def test_a_tenth_is_found_in_noise_of_a_twentieth() -> None:
    """Of many boards read at nine points, each part is within its own error, and so unsure."""
    dice = np.random.default_rng(5)
    held = {"taper": 0, "lean": 0, "barrel": 0}
    boards = 400
    for _ in range(boards):
        noise = dice.normal(0, 0.05, 9).tolist()
        found = face(board(NINE, 0.1, 0.1, 0.1, noise))
        for key in held:
            part = found.part(key)  # type: ignore[arg-type]
            assert part is not None
            held[key] += abs(part.amount_mm - 0.1) <= 1.28 * part.se_mm
    assert all(0.7 < n / boards < 0.92 for n in held.values()), held


def test_four_corners_tell_neither_barrel_nor_waves() -> None:
    found = face(board(FOUR, 0.3, 0.1))
    assert {p.key for p in found.parts} == {"taper", "lean", "waves"} and found.spare == 1
    assert face(board(FOUR, 0.3)[:3]).spare == 0
    assert face(board(FOUR, 0.3)[:3]).part("waves") is None


@settings(max_examples=60, derandomize=True)
@given(st.floats(0, 1), st.floats(-1, 1), st.floats(-1, 1), st.floats(-1, 1))
def test_a_reading_that_agrees_makes_it_no_less_sure(
    x: float, y: float, taper: float, barrel: float
) -> None:
    before = face(board(NINE, taper, 0.0, barrel))
    after = face(board([*NINE, (x, y)], taper, 0.0, barrel))
    for part in before.parts:
        again = after.part(part.key)
        assert again is not None and again.se_mm <= part.se_mm * (1 + 1e-9)


def test_the_relief_is_the_map_in_cells() -> None:
    found = face(board(NINE, taper=0.4, lean=0.2, barrel=0.3))
    assert found.map.off_mm(1.0, 1.0) == pytest.approx(0.2 + 0.1 - 0.2)
    top, bottom = found.relief_mm[0], found.relief_mm[-1]
    assert (len(found.relief_mm), len(top)) == (10, 28)
    assert top[-1] > top[0] and top[0] > bottom[0]


def test_a_verdict_is_held_to_what_was_read() -> None:
    assert verdict_of(0.7, 0.2, 0.8) == "cannot_tell"
    assert verdict_of(0.9, 0.2, 0.8) == "cannot_tell"
    assert verdict_of(1.1, 0.2, 0.8) == "over"
    assert verdict_of(-0.3, 0.2, 0.8) == "within"


def test_the_noise_of_a_caliper_is_no_wave() -> None:
    dice = np.random.default_rng(3)
    noise = dice.normal(0, 0.03, 9).tolist()
    part = face(board(NINE, noise=noise)).part("waves")
    assert part is not None and part.verdict == "within"
    rough = face(board(NINE, noise=[1.2 * (-1) ** i for i in range(9)])).part("waves")
    assert rough is not None and rough.verdict == "over"


def test_a_barrelled_board_eases_the_feed_to_where_it_stands_straight() -> None:
    """By hand: 1.2 mm at 2 m/min; 0.6 of 0.8 mm is 0.4 of it: 2 x 0.4^(1/0.65) = 0.488."""
    assert eased_feed_m_min(1.2, SET) == pytest.approx(2.0 * 0.4 ** (1 / 0.65))
    told = advise_on(face(board(NINE, barrel=1.2)), dataclasses.replace(SET, floor_m_min=0.3))
    assert told is not None and told.part == "barrel"
    assert "from 2.0 m/min to 0.49 m/min" in metric(told.change)
    rubbing = advise_on(face(board(NINE, barrel=1.2)), SET)
    assert rubbing is not None and rubbing.feed_m_min is None
    assert "would rub" in metric(rubbing.change) and "guides closer" in metric(rubbing.change)
    dull = advise_on(face(board(NINE, barrel=1.2)), dataclasses.replace(SET, dullness=0.6))
    assert dull is not None and "sharpen or change" in metric(dull.change)
    tight = advise_on(face(board(NINE, barrel=1.2)), dataclasses.replace(SET, stress_MPa=160.0))
    assert tight is not None and "guides closer" in metric(tight.change)


def test_a_tapered_board_turns_the_fence_by_its_angle() -> None:
    """1.2 mm over 3600 is 1.15 minutes of arc, 0.13 mm over bolts 400 apart."""
    told = advise_on(face(board(NINE, taper=1.2)), SET)
    assert told is not None
    assert f"{60 * math.degrees(math.atan(1.2 / 3600)):.1f} minutes" in metric(told.change)
    assert "0.13 mm at its far bolt" in metric(told.change)


def advised(readings: list[list[float]], asked: float | None = None, **changed: Any) -> FaceAdvice:
    found = read_face(readings, tolerance_mm=0.8, asked_mm=asked)
    told = advise_on(found, dataclasses.replace(SET, asked_mm=asked, **changed))
    assert told is not None
    return told


def test_a_mean_off_what_was_asked_moves_the_fence_by_as_much() -> None:
    """14 mm read, 13 asked: 1.0 too thick; the next step-off is 13 + 1.4."""
    found = read_face(board(NINE), tolerance_mm=0.8, asked_mm=13.0).part("thickness")
    assert found is not None and found.amount_mm == pytest.approx(1.0)
    assert found.verdict == "over" and found.se_mm >= GAUGE_SD_MM
    told = metric(advised(board(NINE), 13.0).change)
    assert told.startswith("1.00 mm too thick: fence in by 1.00 mm.") and "14.4 mm" in told
    assert "point out by" in metric(advised(board(NINE), 15.0, guided="point").change)
    assert "fence" not in metric(advised(board(NINE), 15.0, guided="line").change)
    assert "is it a piece of this job?" in metric(advised(board(NINE), 22.0).change)
    assert read_face(board(NINE), tolerance_mm=0.8).part("thickness") is None
    within = read_face(board(NINE), tolerance_mm=0.8, asked_mm=13.9).part("thickness")
    assert within is not None and within.verdict == "within"


@pytest.mark.parametrize("guided", ["point", "line"])
def test_without_a_fence_there_is_none_to_turn(guided: str) -> None:
    told = advised(board(NINE, taper=1.6), guided=guided)
    assert "There is no fence to turn" in metric(told.change)
    assert "minutes of arc" not in metric(told.change)


def test_a_lean_along_a_fence_says_how_to_tell_fence_from_table_and_which_way() -> None:
    top = metric(advised(board(NINE, lean=1.4), guided="fence").change)
    assert "square on the table" in top and "raise the table's fence side" in top
    assert "toward the band" in top
    bottom = metric(advised(board(NINE, lean=-1.4), guided="fence").change)
    assert "lower the table's fence side" in bottom and "away from the band" in bottom


def test_a_barrel_that_the_push_cannot_explain_is_not_eased_away() -> None:
    """The usual push bows it 0.2 mm; four times that is 0.8, and 1.2 was read."""
    other = advised(board(NINE, barrel=1.2), floor_m_min=0.1, push_barrel_mm=0.2)
    assert other.feed_m_min is None and "0.80 mm of it at the most" in metric(other.change)
    eased = advised(board(NINE, barrel=1.2), floor_m_min=0.1, push_barrel_mm=0.4)
    assert eased.feed_m_min is not None


def test_tension_that_would_not_mend_it_is_not_first() -> None:
    """1.2 mm at 120 MPa wants 180 for 0.8: 165 is all there is, so it is the guides."""
    told = metric(advised(board(NINE, barrel=1.2)).change)
    assert "tension" not in told and "guides closer" in told
    enough = metric(advised(board(NINE, barrel=1.0), floor_m_min=1.0).change)
    assert "tension it to 150 MPa" in enough


@given(st.lists(st.floats(-2, 2), min_size=9, max_size=9))
def test_waves_are_no_larger_than_what_was_read(noise: list[float]) -> None:
    found = face(board(NINE, noise=noise))
    waves = found.part("waves")
    assert waves is not None and waves.amount_mm <= 2.0 * found.map.range_mm + 1e-9
    off = [
        r[2] - found.map.mean_mm - found.map.off_mm(r[0], r[1]) for r in board(NINE, noise=noise)
    ]
    assert waves.amount_mm <= max(off) - min(off) + 1e-9


def test_a_stop_explains_the_step_beside_it_and_no_other() -> None:
    step = [2.0 if i == 4 else 0.0 for i in range(9)]  # in the middle: 1800 mm along
    beside = metric(advised(board(NINE, noise=step), stops_mm=(1750.0,)).change)
    assert "where the step is" in beside
    far = metric(advised(board(NINE, noise=step), stops_mm=(300.0,)).change)
    assert "the step is elsewhere" in far
    ridges = advised(board(NINE, noise=step), ridges="Lower wheel, once a turn.")
    assert ridges.change == "Lower wheel, once a turn."


def test_nothing_is_changed_for_what_cannot_be_told() -> None:
    assert advise_on(face(board(NINE, taper=0.82)), SET) is None
    assert advise_on(face(board(NINE)), SET) is None
    leaning = advise_on(face(board(NINE, lean=1.4)), SET)
    assert leaning is not None and "square" in metric(leaning.change)
