"""The built-in band types as candidates, and band types named by what they are."""

from jade_ribbon.core.job import Candidate
from jade_ribbon.reference.tables import catalogue


def catalogue_candidates() -> tuple[Candidate, ...]:
    """The built-in band types as candidates."""
    return tuple(
        Candidate(
            label=type_label(t.width_mm, t.thickness_mm, t.tpi_lo, t.tpi_hi, t.tooth_form, t.steel),
            width_mm=t.width_mm,
            thickness_mm=t.thickness_mm,
            tpi_lo=t.tpi_lo,
            tpi_hi=t.tpi_hi,
            form=t.tooth_form,
            steel=t.steel,
            to_buy=True,
        )
        for t in catalogue()
    )


def pitch_words(tpi_lo: float | None, tpi_hi: float | None) -> str:
    """Teeth per inch as written: '3', '2–3' or nothing for a continuous edge."""
    if tpi_lo is None or tpi_hi is None:
        return "continuous"
    return f"{tpi_lo:g} tpi" if tpi_lo == tpi_hi else f"{tpi_lo:g}–{tpi_hi:g} tpi"


def type_label(
    width_mm: float,
    thickness_mm: float,
    tpi_lo: float | None,
    tpi_hi: float | None,
    form: str,
    steel: str,
) -> str:
    """A band type named by what it is."""
    pitch = pitch_words(tpi_lo, tpi_hi)
    return f"{width_mm:g} × {thickness_mm:g} {pitch} {form} {steel}"
