"""Where a gap is read and what answers it, for every build of saw."""

import dataclasses
from typing import Any, get_args

import pytest

from jade_ribbon.core.job import Saw
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.fittings import Fittings
from jade_ribbon.core.setup.wheel_places import AXES, Axis, Wheel, check_wheel, place_of, wheels_of
from jade_ribbon.formats.job import JobFile

BUILDS: dict[str, dict[str, Any]] = {
    "two": {},
    "three": {"wheel_diameters_mm": (200.0, 200.0, 200.0)},
    "mill": {"orientation": "horizontal"},
}


@pytest.fixture(params=BUILDS)
def saw(request: pytest.FixtureRequest, job_file: dict[str, Any]) -> Saw:
    plain = JobFile.model_validate(job_file).to_core().saw
    return dataclasses.replace(plain, **BUILDS[request.param])


def test_every_wheel_of_every_saw_has_its_place(saw: Saw) -> None:
    for wheel in wheels_of(saw):
        check_wheel(wheel, saw)
        for axis in get_args(Axis):
            place = place_of(axis=axis, wheel=wheel, saw=saw, fittings=Fittings())
            assert wheel in place.read and wheel in place.bolt
            assert "positive when" in place.read
            assert (place.oclock is None) == (axis == "offset")


def test_a_wheel_the_saw_has_not_is_refused_with_those_it_has(saw: Saw) -> None:
    for wheel in set(get_args(Wheel)) - set(wheels_of(saw)):
        with pytest.raises(InputError) as caught:
            check_wheel(wheel, saw)
        assert ", ".join(wheels_of(saw)) in metric(caught.value.faults[0].message)


def test_a_mill_is_read_along_its_wheels_which_stand_side_by_side(saw: Saw) -> None:
    tilt = place_of(axis="tilt", wheel=wheels_of(saw)[0], saw=saw, fittings=Fittings())
    mill = saw.orientation == "horizontal"
    assert tilt.read.startswith("straightedge level" if mill else "straightedge upright")
    assert tilt.oclock == (3 if mill else 6)


def test_the_bolts_that_lean_a_mill_s_wheels_face_each_other(job_file: dict[str, Any]) -> None:
    plain = JobFile.model_validate(job_file).to_core().saw
    mill = dataclasses.replace(plain, orientation="horizontal")
    left, right = (
        place_of(axis="tilt", wheel=wheel, saw=mill, fittings=Fittings()).oclock
        for wheel in wheels_of(mill)
    )
    assert (left, right) == (3, 9)


def test_a_saw_s_own_bolt_wins_and_only_for_its_axis(saw: Saw) -> None:
    own = Fittings(tilt_bolt_oclock=4)
    wheel = wheels_of(saw)[0]
    tilt = place_of(axis="tilt", wheel=wheel, saw=saw, fittings=own)
    toe = place_of(axis="toe", wheel=wheel, saw=saw, fittings=own)
    assert tilt.oclock == 4 and "usually" not in tilt.bolt
    assert toe.oclock != 4 and "usually" in toe.bolt


def test_the_axes_are_those_the_coach_knows() -> None:
    assert get_args(Axis) == AXES
