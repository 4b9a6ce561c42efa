"""What a shop starts from: kinds of saw, a first job that fits, figures worked out."""

import dataclasses
import math

import pytest

from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.explanation.explain import reasons
from jade_ribbon.core.choosing.uncertainty.spreads import job_spreads
from jade_ribbon.core.job import Cut, Job, Rates, Rules
from jade_ribbon.core.mechanics.geometry import loop_length
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.typical import USUAL
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.saw_defaults.first_job import first_job
from jade_ribbon.core.saw_defaults.kinds import NAMES, StartingKind, assumed_names, starting_kinds
from jade_ribbon.core.saw_defaults.worked_out import usual_thickness_mm, worked_out
from jade_ribbon.formats.job import saw_file
from jade_ribbon.reference.tables import catalogue, materials

KINDS = pytest.mark.parametrize("kind", starting_kinds(), ids=lambda k: k.key)


@KINDS
def test_a_kinds_figures_are_usual_ones(kind: StartingKind) -> None:
    saw = kind.saw
    for field, value in (
        ("wheel_diameter_mm", saw.smallest_wheel_mm),
        ("band_length_mm", saw.middle_length_mm),
        ("saw_height_mm", saw.height_mm),
        ("throat_mm", saw.throat_mm),
        ("motor_kW", saw.motor_kW),
        ("drive_efficiency", saw.drive_efficiency),
        ("guide_span_base_mm", saw.guide_span_base_mm),
        ("speed_m_s", saw.drive.fastest_m_s),
        ("width_mm", saw.band_width_mm[1]),
    ):
        assert USUAL[field].low <= value <= USUAL[field].high, field
    assert saw_file(saw).to_core() == saw


@KINDS
def test_a_kinds_wheels_leave_room_between_them(kind: StartingKind) -> None:
    """Centres that the length implies: the wheels do not touch, and the work fits between."""
    wheel = kind.saw.smallest_wheel_mm
    centres = (kind.saw.middle_length_mm - math.pi * wheel) / 2.0
    assert centres > 1.5 * wheel
    assert centres - wheel > kind.saw.height_mm * 0.9 or kind.saw.orientation == "horizontal"


@KINDS
def test_everything_a_kind_gives_is_assumed_and_has_a_name(kind: StartingKind) -> None:
    assert set(kind.assumed) <= set(NAMES)
    assert {"wheel_diameters_mm.0", "motor_kW", "drive", "wheel_force_max_N"} <= set(kind.assumed)
    assert ("feed_max_m_min" in kind.assumed) == (kind.saw.feed_max_m_min is not None)
    names = assumed_names(kind.assumed)
    assert len(names) == len(set(names)) and not any("_" in name for name in names)


@KINDS
def test_the_first_job_fits_its_saw(kind: StartingKind) -> None:
    """A band that can be bought does it; nothing stops it."""
    first = first_job(kind.saw)
    cut = Cut(
        operation=first.operation,
        material=materials()[first.material],
        height_mm=first.height_mm,
        length_mm=first.length_mm,
        count=first.count,
        finish=first.finish,
        tolerance_mm=first.tolerance_mm,
        log_diameter_mm=first.log_diameter_mm,
        round_stock=first.round_stock,
    )
    job = Job(saw=kind.saw, cut=cut, rules=Rules(), rates=Rates(), bands=catalogue_candidates())
    found = choose(job)
    assert not found.stop
    assert found.ranked, kind.key


def test_a_loop_around_two_wheels() -> None:
    """Alike: two strands and a whole wheel. Unlike: longer than the mean wheel's. Far: twice C."""
    alike = loop_length(wheel_diameter_mm=400, second_wheel_mm=400, centres_mm=1050).length_mm
    assert alike == pytest.approx(2 * 1050 + math.pi * 400)
    unlike = loop_length(wheel_diameter_mm=500, second_wheel_mm=300, centres_mm=1050).length_mm
    assert unlike == pytest.approx(alike + 100**2 / 1050, rel=1e-5)
    swapped = loop_length(wheel_diameter_mm=300, second_wheel_mm=500, centres_mm=1050).length_mm
    assert swapped == pytest.approx(unlike)
    far = loop_length(wheel_diameter_mm=1, second_wheel_mm=1, centres_mm=10_000).length_mm
    assert far == pytest.approx(20_000, rel=1e-3)


def test_wheels_that_overlap_are_refused_with_what_is_accepted() -> None:
    with pytest.raises(InputError) as refused:
        loop_length(wheel_diameter_mm=400, second_wheel_mm=300, centres_mm=350)
    (fault,) = refused.value.faults
    assert fault.path == "centres_mm"
    assert metric(fault.message) == "350 mm lets the wheels overlap; accepted: more than 350 mm"


def test_speed_by_the_wheel_and_by_pulleys_agree() -> None:
    by_wheel = worked_out(wheels_mm=(400, 400), wheel_rpm=700)
    by_motor = worked_out(
        wheels_mm=(400, 400), motor_rpm=1400, motor_pulley_mm=80, wheel_pulley_mm=160
    )
    assert by_wheel.speed_m_s == pytest.approx(math.pi * 0.4 * 700 / 60)
    assert by_motor.speed_m_s == pytest.approx(by_wheel.speed_m_s)
    assert "700" in metric(by_motor.speed_words)


def test_nothing_told_leads_to_nothing_but_the_frame() -> None:
    found = worked_out(wheels_mm=(356, 356), motor_rpm=1400)
    assert (found.speed_m_s, found.length_mm) == (None, None)
    assert found.force_N == pytest.approx(1400)
    assert "factor of 1.6" in metric(found.force_words)


def test_a_string_needs_no_centres_and_goes_around_three_wheels() -> None:
    found = worked_out(wheels_mm=(200, 200, 200), string_mm=2100)
    assert found.length_mm is not None
    assert (found.length_mm.low, found.length_mm.high) == (2080, 2120)
    with pytest.raises(InputError):
        worked_out(wheels_mm=(200, 200, 200), centres_mm=600)


@pytest.mark.parametrize("steel", [None, *sorted({t.steel for t in catalogue()})])
def test_usual_thickness_grows_with_width_and_is_one_of_the_table(steel: str | None) -> None:
    types = [t for t in catalogue() if steel in (None, t.steel)]
    known = [t.thickness_mm for t in types]
    found = [usual_thickness_mm(t.width_mm, steel) for t in types]
    assert min(known) <= min(found) and max(found) <= max(known)
    narrow, wide = min(t.width_mm for t in types), max(t.width_mm for t in types)
    assert usual_thickness_mm(narrow, steel) <= usual_thickness_mm(wide, steel)


def test_a_force_that_its_kind_gave_is_no_surer_than_a_light_frame_s() -> None:
    """An assumed figure makes no answer bolder: it is spread as widely, and said to be a guess."""
    mill = next(k for k in starting_kinds() if k.key == "mill").saw
    first = first_job(mill)
    cut = Cut(
        operation=first.operation,
        material=materials()[first.material],
        height_mm=first.height_mm,
        length_mm=first.length_mm,
        count=first.count,
        finish=first.finish,
        log_diameter_mm=first.log_diameter_mm,
    )
    guessed = dataclasses.replace(mill, force_assumed=True)
    jobs = [
        Job(saw=saw, cut=cut, rules=Rules(), rates=Rates(), bands=catalogue_candidates())
        for saw in (mill, guessed)
    ]
    known, assumed = ({s.key: s for s in job_spreads(job)} for job in jobs)
    assert "frame" not in known
    assert assumed["frame"].source == "guess"
    found = choose(jobs[1])
    assert found.best is not None
    words = " ".join(metric(r.text) for r in reasons(found.best, found, jobs[1]))
    assert "usual for its kind" in words
