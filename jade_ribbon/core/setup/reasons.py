"""What each figure of a set-up card rests on, by step."""

from collections.abc import Mapping

from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.choosing.explanation.figures import Explained, Input, explain_figures
from jade_ribbon.core.job import Job
from jade_ribbon.core.setup.card import SetupCard

GAP_SOURCE = "By guide kind and house rule; the saw's manual wins where it gives a figure"
STEP_OF_FIGURE = {"tension": "tension", "speed": "speed", "trial": "feed"}


def _gaps(card: SetupCard, job: Job) -> Explained:
    guides = card.guides
    side = () if guides.side_gap_mm is None else (Input("sides", guides.side_gap_mm, "mm"),)
    return Explained(
        title="Guide gaps",
        value=guides.thrust_gap_mm if guides.side_gap_mm is None else guides.side_gap_mm,
        unit="mm",
        formula="rolling and ceramic 0.1, steel blocks 0.15, soft blocks touching; thrust a spacer",
        inputs=(
            *side,
            Input("thrust", guides.thrust_gap_mm, "mm"),
            Input("behind the gullets, deep", guides.behind_gullet_mm, "mm"),
        ),
        source=GAP_SOURCE,
        uncertainty="Felt with slips: some hundredths of a millimetre.",
        rule=f"Guides on this saw: {job.saw.guides.replace('_', ' ')}",
    )


def _guard(card: SetupCard, job: Job) -> Explained:
    guides = card.guides
    if job.saw.orientation == "horizontal":
        return Explained(
            title="Guide arm clear of the work",
            value=guides.guard_gap_mm,
            unit="mm",
            formula="house rule: the guard's gap",
            inputs=(Input("gap", guides.guard_gap_mm, "mm"),),
            source="House rule",
            uncertainty="Exact.",
            rule="Guard above the work: as near as the work lets it",
        )
    return Explained(
        title="Guard above the table",
        value=guides.guard_height_mm,
        unit="mm",
        formula="height of the work + the guard's gap",
        inputs=(
            Input("height", job.cut.height_mm, "mm"),
            Input("gap", guides.guard_gap_mm, "mm"),
        ),
        source="Geometry of the cut",
        uncertainty="Exact.",
        rule="Guard above the work: as near as the work lets it",
    )


def explain_steps(card: SetupCard, best: Ranked, job: Job) -> Mapping[str, Explained]:
    """Reasons of the figure each step shows, by the step's key."""
    figures = explain_figures(best, job)
    found = {step: figures[key] for step, key in STEP_OF_FIGURE.items()}
    found["guard"] = _guard(card, job)
    found["guides_upper"] = found["guides_lower"] = _gaps(card, job)
    return {s.key: found[s.key] for s in card.steps if s.key in found and s.figure}
