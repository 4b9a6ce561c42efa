"""The result of a job file: the recommendation as plain data (docs/formats)."""

import dataclasses
from itertools import zip_longest
from typing import Any

from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.choosing.explanation.cautions import cautions_for
from jade_ribbon.core.choosing.explanation.explain import reasons
from jade_ribbon.core.choosing.explanation.rules_at_work import rules_applied
from jade_ribbon.core.choosing.operating_point import Evaluation
from jade_ribbon.core.choosing.uncertainty.chances import BandSpread, chances
from jade_ribbon.core.choosing.uncertainty.monte_carlo import DRAWS, SEED, Dice
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.mechanics.tension import tension
from jade_ribbon.core.quantities.words import metric

ALTERNATIVES_SHOWN = 12
GAUGE_LENGTH_MM = 100.0


def band_line(band: Candidate) -> dict[str, Any]:
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


def option_record(
    ranked: Ranked, choice: Choice, job: Job, spread: BandSpread | None = None
) -> dict[str, Any]:
    """One feasible band with its settings; chances and lot where they were looked at."""
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
        "band": band_line(e.facts.band),
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
        "lot": dataclasses.asdict(ranked.lot.forecast) if ranked.lot is not None else None,
        "chance_best": spread.chance_best if spread is not None else None,
        "cost_range": [spread.cost.low, spread.cost.high] if spread is not None else None,
        "reasons": [{"key": r.key, "text": metric(r.text)} for r in reasons(ranked, choice, job)],
    }


def recommend(job: Job, *, draws: int = DRAWS, seed: int = SEED) -> dict[str, Any]:
    """The result of a job file, over so many draws. Raises InputError with every fault."""
    choice = choose(job, beside=ALTERNATIVES_SHOWN + 1)
    best = choice.best
    spread = chances(choice, job, Dice(draws, seed))
    spreads = spread.bands if spread is not None else ()
    options = [
        option_record(ranked, choice, job, shown)
        for ranked, shown in zip_longest(
            choice.ranked[: ALTERNATIVES_SHOWN + 1], spreads[: ALTERNATIVES_SHOWN + 1]
        )
        if ranked is not None
    ]
    return {
        "recommended": options[0] if best is not None else None,
        "alternatives": options[1:] if best is not None else [],
        "excluded": [
            {
                "band": band_line(e.facts.band),
                "reasons": [{"key": r.key, "text": metric(r.text)} for r in e.conflicts],
            }
            for e in choice.excluded
        ],
        "cautions": [
            {"key": c.key, "level": c.level, "text": metric(c.text)}
            for c in cautions_for(job, best)
        ],
        "rules_applied": [
            {"rule": r.rule, "choice": r.choice, "why": r.why}
            for r in rules_applied(best, choice, job)
        ],
    }
