"""How many slices a billet gives."""

import math
from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits

EXACT_FIT_SLACK = 1e-9


@dataclass(frozen=True)
class Slicing:
    slices: int
    sawn_thickness_mm: float
    left_over_mm: float
    finished_yield: float


@within_limits
def slicing(
    *,
    billet_mm: float,
    slice_mm: float,
    kerf_mm: float,
    clean_up_per_face_mm: float,
    prepare_loss_mm: float,
) -> Slicing:
    """Slices n = floor((B - loss + k) / (s + 2c + k)), left-over after n and n - 1 kerfs.

    All in mm; yield is finished thickness over billet. Cutting the left-over free costs
    one more kerf. Raises InputError when preparing takes the whole billet.

    Source: arithmetic of n slices and n - 1 kerfs; docs/model "Slicing".

    >>> slicing(billet_mm=159.8, slice_mm=12.4, kerf_mm=2.87, clean_up_per_face_mm=0.5,
    ...     prepare_loss_mm=2).slices
    9
    """
    usable = billet_mm - prepare_loss_mm
    if usable <= 0:
        raise refuse(
            "prepare_loss_mm",
            f"{prepare_loss_mm:g} takes the whole billet; accepted: under {billet_mm:g}",
            prepare_loss_mm,
        )
    sawn = slice_mm + 2.0 * clean_up_per_face_mm
    n = math.floor((usable + kerf_mm) / (sawn + kerf_mm) + EXACT_FIT_SLACK)
    left = usable - n * sawn - max(n - 1, 0) * kerf_mm
    return Slicing(n, sawn, max(left, 0.0), n * slice_mm / billet_mm)
