"""Long-standing pairs written out for the wall: a sign, what it mostly is, what tells which."""

from dataclasses import dataclass

from jade_ribbon.core.faults.acting import to_look_at
from jade_ribbon.core.faults.diagnosis import Told, infer
from jade_ribbon.core.faults.knowledge import Knowledge
from jade_ribbon.core.faults.next_check import offers
from jade_ribbon.core.quantities.chances import chance_words
from jade_ribbon.reference.faults import causes, checks, sign_texts

ASKED = ("drift", "tick", "barrel", "wander", "burn", "washboard", "hard_push", "vibration")
"""What people ask most: set or tension or fence? weld, memory or tyre? push, dull or slack?"""
MOST_CAUSES, MOST_CHECKS = 4, 3
TELLS_APART = 0.25
"""A check is on a card where one of its answers says a quarter more, or less, of a cause."""


SPEAKS = 1.5
"""And so much likelier of that cause than of nobody: what is only left over does not count."""


@dataclass(frozen=True)
class CardCause:
    """A cause of a card: how likely by the sign alone, and what is done about it."""

    key: str
    name: str
    chance: float
    words: str
    remedy: str


@dataclass(frozen=True)
class CardAnswer:
    """An answer of a check, and the cause it points to ('' for none of them)."""

    words: str
    cause: str
    chance: float


@dataclass(frozen=True)
class CardCheck:
    """A check that tells the causes of a card apart."""

    key: str
    do: str
    minutes: float
    answers: tuple[CardAnswer, ...]


@dataclass(frozen=True)
class Card:
    """A sign with its likeliest causes, and the checks that tell them apart."""

    sign: str
    name: str
    look: str
    causes: tuple[CardCause, ...]
    checks: tuple[CardCheck, ...]


def _card(known: Knowledge, sign: str) -> Card:
    found = infer(Told({sign: 1.0}), known)
    top = [int(i) for i in found.order[:MOST_CAUSES]]
    named = [known.causes[i] for i in top]
    shown = []
    danger = bool(to_look_at(found))
    for offer in offers(found):
        if danger and known.check_of[offer.check].runs:
            continue
        answers = []
        check = known.check_of[offer.check]
        row = checks()[offer.check]
        for (outcome, _), words, after in zip(
            offer.outcomes, row.outcome_words, offer.after, strict=True
        ):
            rises = {k: float(after[i] - found.chances[i]) for k, i in zip(named, top, strict=True)}
            best = max(rises, key=lambda k: rises[k])
            given = check.chances[:, check.outcomes.index(outcome)]
            says = float(given[known.place[best]]) >= SPEAKS * float(given[-1])
            points = says and rises[best] > TELLS_APART * found.chance(best)
            answers.append(
                CardAnswer(
                    words,
                    causes()[best].name if points else "",
                    float(after[known.place[best]]) if points else 0.0,
                )
            )
        if len({a.cause for a in answers if a.cause}) >= 1:
            shown.append(CardCheck(row.key, row.do, row.minutes, tuple(answers)))
        if len(shown) == MOST_CHECKS:
            break
    text = sign_texts()[sign]
    return Card(
        sign,
        text.name,
        text.look,
        tuple(
            CardCause(
                k,
                causes()[k].name,
                found.chance(k),
                chance_words(found.chance(k)),
                causes()[k].remedy,
            )
            for k in named
        ),
        tuple(shown),
    )


def cards(known: Knowledge) -> tuple[Card, ...]:
    """A card for each sign that is asked about most."""
    return tuple(_card(known, sign) for sign in ASKED)
