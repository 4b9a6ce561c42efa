"""The built-in band types as candidates, and band types named by what they are."""

from collections.abc import Callable
from functools import lru_cache

from jade_ribbon.core.bands.facts import BandFacts, band_facts
from jade_ribbon.core.job import Candidate, Job, Rates
from jade_ribbon.reference.tables import Material, catalogue, short_name, steels, tooth_forms


@lru_cache(maxsize=1)
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


@lru_cache(maxsize=1)
def _places() -> dict[int, Candidate]:
    """The built-in types by identity: the same objects as long as the program runs."""
    return {id(band): band for band in catalogue_candidates()}


@lru_cache(maxsize=16)
def _kept(
    material: Material,
    rates: Rates,
    kerf: str,
    tension: str,
    length_mm: float,
    stress_MPa: float | None,
) -> dict[int, BandFacts]:
    """Facts of built-in types found so far, under all that they rest on."""
    return {}


def facts_finder(job: Job) -> Callable[[Candidate], BandFacts]:
    """Finds bands' facts in a job; those of built-in types are found once for the like of it."""
    rules, length = job.rules, job.saw.middle_length_mm
    kept = _kept(job.cut.material, job.rates, rules.kerf, rules.tension, length, job.stress_MPa)
    built_in = _places()

    def find(band: Candidate) -> BandFacts:
        key = id(band)
        if key not in built_in:
            return band_facts(band, job)
        if key not in kept:
            kept[key] = band_facts(band, job)
        return kept[key]

    return find


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
    kind = f"{short_name(tooth_forms()[form].name)} {short_name(steels()[steel].name)}"
    return f"{width_mm:g} × {thickness_mm:g} {pitch} {kind}"
