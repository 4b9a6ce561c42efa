"""A set-up card as a printed sheet, in the shop's units."""

import functools

from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.words import Said, Words, join, number, quantity, said, sentence
from jade_ribbon.core.setup.card import SetupStep
from jade_ribbon.formats.printed.setup_sheet import SetupSheet, SheetStep
from jade_ribbon.services.setup.cards import SetupAnswer, StepState, one_setup
from jade_ribbon.services.shop.settings import read_shop


def _left(step: SetupStep, state: StepState | None) -> Said:
    """What was left at a step, in words."""
    if state is None:
        return ""
    if state.skipped:
        return f"skipped: {state.skipped}"
    parts = [
        sentence(f"{r.label} ", quantity(state.left[r.key], r.kind))
        for r in step.readings
        if r.key in state.left
    ]
    return join(", ", [*parts, *([state.who] if state.who else [])])


def _figures(answer: SetupAnswer) -> list[tuple[str, Words]]:
    card = answer.card
    tension = card.tension
    forms: list[Words] = [
        quantity(tension.stress_MPa, "stress"),
        sentence(quantity(tension.forms.gauge_stretch_um, "stretch"), " on a gauge"),
    ]
    if tension.note_Hz is not None:
        forms.append(f"{tension.note_Hz:.1f} Hz plucked")
    if tension.side_push is not None:
        push = tension.side_push
        forms.append(
            sentence(
                quantity(push.force_N, "force"), " for ", quantity(push.deflection_mm, "length")
            )
        )
    guard = next(s for s in card.steps if s.key == "guard")
    return [
        ("tension", join(", ", forms)),
        ("speed", sentence(quantity(card.speed_m_s, "speed"), f", {card.speed_setting}")),
        ("feed", quantity(card.feed_m_min, "feed")),
        ("guard", sentence(guard.figure, f" {guard.readings[0].label}")),
    ]


def setup_sheet(session: Session, setup_id: int, address: str) -> SetupSheet:
    """The sheet of a card; `address` opens the record."""
    answer = one_setup(session, setup_id)
    units = read_shop(session).units
    say = functools.partial(said, units=units)
    band = answer.option.band
    pitch = "" if band.tpi_lo is None else f", {band.tpi_lo:g} tpi"
    return SetupSheet(
        title=f"{answer.saw_name} with {answer.band_label}",
        under=f"{answer.job_name}. Band {number(band.width_mm, 'length', units)} x "
        f"{say(quantity(band.thickness_mm, 'thin'))}{pitch}, {band.steel_name}. "
        f"Card {answer.id}, begun {answer.started_at:%Y-%m-%d}.",
        figures=[(name, say(words)) for name, words in _figures(answer)],
        steps=[
            SheetStep(
                title=step.title,
                figure=say(step.figure),
                do=say(step.do),
                check=say(step.check),
                left=say(_left(step, answer.steps.get(step.key))),
                done=step.key in answer.steps and answer.steps[step.key].done,
            )
            for step in answer.card.steps
        ],
        cautions=[say(c.text) for c in answer.cautions],
        disclaimer=answer.disclaimer,
        address=address,
    )
