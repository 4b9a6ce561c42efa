"""What to do with a dull band under the shop's rule for resharpening."""

from jade_ribbon.reference.tables import Steel, ToothForm

WORTH_WIDTH_MM = 12.0
WORTH_PITCH_TPI = 4.0
"""Coarse and wide bands repay sharpening; finer or narrower ones are cheaper new."""
DUE_FROM = 0.6

WAYS = {
    "send_out": "send it out",
    "in_house": "sharpen it in house",
    "on_saw": "sharpen it on the saw",
}


def sharpening_advice(
    *,
    steel: Steel,
    form: ToothForm,
    width_mm: float,
    tpi_lo: float | None,
    sharpenings: int,
    dullness: float,
    rule: str,
) -> str:
    """A sentence for a band's page; empty while the edge is not due.

    Takes the steel's usual number of resharpenings from the table.
    """
    if dullness < DUE_FROM:
        return ""
    left = steel.resharpen_times - sharpenings
    coarse = tpi_lo is not None and tpi_lo <= WORTH_PITCH_TPI and width_mm >= WORTH_WIDTH_MM
    if form.nominal_pitch_mm is not None or steel.resharpen_times == 0:
        return "This edge is not resharpened: replace it at its limit."
    if left <= 0:
        return f"Sharpened {sharpenings} times, as often as {steel.name} repays: replace it."
    if rule == "never":
        return "House rule: not resharpened; keep it for rough work, then replace it."
    if not coarse:
        return "Fine or narrow: a new one is cheaper than sharpening it."
    return (
        f"Due: {WAYS[rule]}; {left} of {steel.resharpen_times} resharpenings are left. "
        "Never with a crack, a kink or a tooth missing."
    )
