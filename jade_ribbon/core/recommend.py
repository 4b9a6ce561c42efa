"""Recommendation as the job file's result: plain data, the same for screen and command line."""

from typing import Any

from jade_ribbon.core.cautions import cautions_for
from jade_ribbon.core.choose import Choice, Ranked, choose
from jade_ribbon.core.evaluate import Evaluation
from jade_ribbon.core.explain import reasons, rules_applied
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.tension import tension
from jade_ribbon.reference.tables import catalogue

ALTERNATIVES_SHOWN = 12
GAUGE_LENGTH_MM = 100.0


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


def band_record(band: Candidate) -> dict[str, Any]:
    """A band as the job file writes it."""
    record: dict[str, Any] = {
        "label": band.label,
        "width_mm": band.width_mm,
        "thickness_mm": band.thickness_mm,
    }
    if band.tpi_lo is not None and band.is_variable:
        record["tpi_range"] = [band.tpi_lo, band.tpi_hi]
    elif band.tpi_lo is not None:
        record["tpi"] = band.tpi_lo
    return record | {
        "form": band.form,
        "steel": band.steel,
        "set_per_side_mm": band.set_per_side_mm,
        "length_mm": band.length_mm,
        "dullness": band.dullness,
        "price": band.price,
    }


def window_record(e: Evaluation) -> dict[str, Any]:
    """The feed window as the calculation prints it."""
    w = e.window
    assert w is not None
    return {
        "limits_m_min": dict(w.limits_m_min),
        "floor_m_min": w.floor_m_min,
        "ceiling_m_min": w.ceiling_m_min,
        "binding": w.binding,
        "state": w.state,
        "recommended_m_min": w.recommended_m_min,
    }


def option_record(ranked: Ranked, choice: Choice, job: Job) -> dict[str, Any]:
    """One feasible band with its settings."""
    e, run = ranked.evaluation, ranked.run
    assert e.speed is not None and e.fatigue is not None
    forms = tension(
        stress_MPa=e.stress_MPa,
        body_width_mm=e.facts.body_width_mm,
        thickness_mm=e.facts.band.thickness_mm,
        band_length_mm=e.facts.length_mm,
        gauge_length_mm=GAUGE_LENGTH_MM,
    )
    return {
        "band": band_record(e.facts.band),
        "stress_MPa": e.stress_MPa,
        "wheel_force_N": e.strand_force_N * job.saw.force_per_strand,
        "gauge_stretch_um_per_100mm": forms.gauge_stretch_um,
        "speed_m_s": e.speed.speed_m_s,
        "drive_setting": e.speed.setting,
        "feed_m_min": run.feed_m_min,
        "feed_window": window_record(e),
        "teeth_in_cut": e.teeth_in_cut,
        "min_radius_mm": e.tight_radius_mm,
        "bending_hours": e.fatigue.running_hours,
        "cut_time_s": run.contact.cutting_time_s,
        "equivalent_contact_m": run.equivalent_m,
        "cost_per_piece": ranked.total,
        "reasons": [{"key": r.key, "text": r.text} for r in reasons(ranked, choice, job)],
    }


def recommend(job: Job) -> dict[str, Any]:
    """The result of a job file. Raises InputError with every fault."""
    choice = choose(job)
    best = choice.best
    others = choice.ranked[1:] if best is not None else ()
    return {
        "recommended": option_record(best, choice, job) if best else None,
        "alternatives": [option_record(r, choice, job) for r in others[:ALTERNATIVES_SHOWN]],
        "excluded": [
            {
                "band": band_record(e.facts.band),
                "reasons": [{"key": r.key, "text": r.text} for r in e.conflicts],
            }
            for e in choice.excluded
        ],
        "cautions": [
            {"key": c.key, "level": c.level, "text": c.text} for c in cautions_for(job, best)
        ],
        "rules_applied": [
            {"rule": r.rule, "choice": r.choice, "why": r.why}
            for r in rules_applied(best, choice, job)
        ],
    }
