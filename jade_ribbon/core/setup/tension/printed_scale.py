"""What the marks printed on a saw's tension scale really give, once it is calibrated."""

import dataclasses
from collections.abc import Sequence

from jade_ribbon.core.bands.facts import body_width_of
from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.job import Candidate
from jade_ribbon.core.setup.fittings import PrintedScaleMark
from jade_ribbon.core.setup.tension.calibration import PrintedMark, ScaleFit, stress_from_scale
from jade_ribbon.reference.tables import steels


def usual_band(width_mm: float) -> Candidate:
    """The thinnest catalogue type of about a width: a printed mark says no more than that."""
    usual = min(catalogue_candidates(), key=lambda b: (abs(b.width_mm - width_mm), b.thickness_mm))
    return dataclasses.replace(usual, width_mm=width_mm)


def printed_marks(
    fit: ScaleFit, marks: Sequence[PrintedScaleMark], *, force_per_strand: float
) -> list[PrintedMark]:
    """What each printed mark really gives a usual band of its width, against its target."""
    found = []
    for mark in marks:
        band = usual_band(mark.width_mm)
        stress = stress_from_scale(
            fit,
            reading=mark.reading,
            body_width_mm=body_width_of(band),
            thickness_mm=band.thickness_mm,
            force_per_strand=force_per_strand,
        )
        target = steels()[band.steel].tension_wood_target_MPa
        found.append(PrintedMark(mark.width_mm, mark.reading, stress, target))
    return found
