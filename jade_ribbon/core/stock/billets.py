"""A bowed billet: trued first or sawn along its curve."""

from dataclasses import dataclass

from jade_ribbon.core.mechanics.slicing import slicing
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.formula_limits import within_limits

WILL_NOT_LIE_FLAT_N = 40.0
"""A slice that needs more than this pressed on its middle does not lie flat by itself."""


@dataclass(frozen=True)
class BowedBillet:
    """Slices either way, and the force that presses one slice flat."""

    true_first_slices: int
    along_curve_slices: int
    flatten_force_N: float


@within_limits
def bowed_billet(
    *,
    billet_mm: float,
    bow_mm: float,
    length_mm: float,
    height_mm: float,
    slice_mm: float,
    kerf_mm: float,
    clean_up_per_face_mm: float,
    prepare_loss_mm: float,
    wood_modulus_MPa: float,
) -> BowedBillet:
    """Slices of a billet trued first, which takes its bow, against sawn along its curve.

    A slice as sawn, t = slice + 2 clean-up thick, is a beam on its ends: 48 E I bow / length^3
    presses its middle flat, I = height t^3 / 12. A billet that its bow takes whole gives none
    trued first. Raises InputError when preparing alone takes the whole billet.

    Source: Statics of Beams, "Simply supported beam, load at mid-span"; docs/model "Stock".

    >>> found = bowed_billet(billet_mm=62, bow_mm=14.9, length_mm=1555, height_mm=233,
    ...     slice_mm=12.2, kerf_mm=1.4, clean_up_per_face_mm=0.5, prepare_loss_mm=2,
    ...     wood_modulus_MPa=10000)
    >>> found.true_first_slices, found.along_curve_slices, round(found.flatten_force_N, 1)
    (3, 4, 84.9)
    """

    def slices(loss_mm: float) -> int:
        return slicing(
            billet_mm=billet_mm,
            slice_mm=slice_mm,
            kerf_mm=kerf_mm,
            clean_up_per_face_mm=clean_up_per_face_mm,
            prepare_loss_mm=loss_mm,
        ).slices

    along = slices(prepare_loss_mm)
    try:
        trued = slices(prepare_loss_mm + bow_mm)
    except InputError:
        trued = 0
    thick = slice_mm + 2.0 * clean_up_per_face_mm
    inertia_mm4 = height_mm * thick**3 / 12.0
    force = 48.0 * wood_modulus_MPa * inertia_mm4 * bow_mm / length_mm**3
    return BowedBillet(trued, along, force)
