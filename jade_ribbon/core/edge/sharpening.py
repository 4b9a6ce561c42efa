"""Which bands repay sharpening."""

WORTH_WIDTH_MM = 12.0
WORTH_PITCH_TPI = 4.0
"""Coarse and wide bands repay sharpening; finer or narrower ones are cheaper new."""


def worth_sharpening(width_mm: float, tpi_lo: float | None) -> bool:
    """Whether a band is coarse and wide enough to be sharpened at all.

    >>> worth_sharpening(19.0, 3.0), worth_sharpening(6.0, 6.0)
    (True, False)
    """
    return tpi_lo is not None and tpi_lo <= WORTH_PITCH_TPI and width_mm >= WORTH_WIDTH_MM
