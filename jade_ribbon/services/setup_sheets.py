"""A set-up card as a printed sheet."""

from sqlalchemy.orm import Session

from jade_ribbon.core.setup_card import SetupStep
from jade_ribbon.core.words import figure, metric
from jade_ribbon.formats.setup_sheet import SetupSheet, SheetStep
from jade_ribbon.services.setups import SetupAnswer, StepState, one_setup

UNITS = {"stress": "MPa", "thin": "mm", "length": "mm", "speed": "m/s", "plain": ""}


def _left(step: SetupStep, state: StepState | None) -> str:
    """What was left at a step, in words."""
    if state is None:
        return ""
    if state.skipped:
        return f"skipped: {state.skipped}"
    parts = [
        f"{r.label} {figure(state.left[r.key], 3)} {UNITS[r.kind]}".strip()
        for r in step.readings
        if r.key in state.left
    ]
    return ", ".join([*parts, *([state.who] if state.who else [])])


def _figures(answer: SetupAnswer) -> list[tuple[str, str]]:
    card = answer.card
    tension = card.tension
    forms = [f"{tension.stress_MPa:.0f} MPa", f"{tension.forms.gauge_stretch_um:.0f} µm on a gauge"]
    if tension.note_Hz is not None:
        forms.append(f"{tension.note_Hz:.1f} Hz plucked")
    if tension.side_push is not None:
        push = tension.side_push
        forms.append(f"{push.force_N:.1f} N for {push.deflection_mm:g} mm")
    return [
        ("tension", ", ".join(forms)),
        ("speed", f"{card.speed_m_s:.3g} m/s, {card.speed_setting}"),
        ("feed", f"{card.feed_m_min:.2g} m/min"),
        ("guard", f"{card.guides.guard_height_mm:g} mm above the table"),
    ]


def setup_sheet(session: Session, setup_id: int, address: str) -> SetupSheet:
    """The sheet of a card; `address` opens the record."""
    answer = one_setup(session, setup_id)
    band = answer.option.band
    pitch = "" if band.tpi_lo is None else f", {band.tpi_lo:g} tpi"
    return SetupSheet(
        title=f"{answer.saw_name} with {answer.band_label}",
        under=f"{answer.job_name}. Band {band.width_mm:g} x {band.thickness_mm:g} mm{pitch}, "
        f"{band.steel_name}. Card {answer.id}, begun {answer.started_at:%Y-%m-%d}.",
        figures=_figures(answer),
        steps=[
            SheetStep(
                title=step.title,
                figure=metric(step.figure),
                do=metric(step.do),
                check=metric(step.check),
                left=_left(step, answer.steps.get(step.key)),
                done=step.key in answer.steps and answer.steps[step.key].done,
            )
            for step in answer.card.steps
        ],
        cautions=[c.text for c in answer.cautions],
        disclaimer=answer.disclaimer,
        address=address,
    )
