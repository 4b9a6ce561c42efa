"""The trouble book: what came back, what it cost, what to mind; signs and cards."""

from datetime import UTC, datetime, timedelta

import pytest

from jade_ribbon.core.faults.acting import asked_of, clears, to_look_at
from jade_ribbon.core.faults.book import BookEntry, before_a_job, came_back, sums
from jade_ribbon.core.faults.diagnosis import Told, infer
from jade_ribbon.core.faults.knowledge import listed
from jade_ribbon.core.faults.pairs import ASKED, MOST_CAUSES, cards
from jade_ribbon.core.faults.readings import record_words
from jade_ribbon.core.faults.signs import SOUNDS, signs
from jade_ribbon.core.simulation.sounds import MADE
from jade_ribbon.reference.faults import record_evidence, sign_texts

NOW = datetime(2026, 5, 1, tzinfo=UTC)


def entry(number: int, days_ago: float, *causes: str, saw: int = 1, band: int = 1) -> BookEntry:
    at = NOW - timedelta(days=days_ago)
    return BookEntry(number, saw, band, at, causes, 30.0, 20.0, "resaw", "european_larch_dry")


def test_what_came_back_is_the_same_cause_on_the_same_saw_within_ninety_days() -> None:
    entries = [
        entry(1, 200, "tension_low"),
        entry(2, 60, "tension_low", band=2),
        entry(3, 10, "tension_low"),
        entry(4, 5, "tension_low", saw=2),
    ]
    assert came_back(entries) == {3: 2}


def test_a_bands_cause_comes_back_with_that_band_only() -> None:
    one, other = entry(1, 20, "weld_proud", band=1), entry(2, 10, "weld_proud", band=2)
    assert came_back([one, other]) == {}
    assert came_back([one, entry(3, 10, "weld_proud", band=1)]) == {3: 1}


def test_sums_share_a_trouble_between_its_causes() -> None:
    found = {s.cause: s for s in sums([entry(1, 9, "dull", "knots"), entry(2, 2, "dull")])}
    assert (found["dull"].times, found["dull"].minutes, found["dull"].money) == (2, 45.0, 30.0)
    assert (found["knots"].times, found["knots"].minutes) == (1, 15.0)
    assert sum(s.minutes for s in found.values()) == 60.0
    assert found["dull"].came_back == 1
    assert sums([]) == ()


def test_before_a_job_counts_such_work_only() -> None:
    kept = [entry(1, 9, "dull"), entry(2, 8, "dull"), entry(3, 5, "knots"), entry(4, 900, "dull")]

    def line(operation: str, material: str) -> str:
        return before_a_job(kept, now=NOW, operation=operation, material=material, said="resaw")

    assert line("resaw", "oak") == (
        "Gone wrong on this saw with resaw, in two years: dull edge twice; knots or cross grain "
        "once."
    )
    assert line("rip", "european_larch_dry") == line("resaw", "oak")
    assert line("rip", "oak") == ""


def test_every_sign_stands_in_a_group_beside_another_one() -> None:
    shown = signs()
    assert {s.key for s in shown} == set(sign_texts()) and len(shown) == len(sign_texts())
    assert all(s.like in sign_texts() and s.like != s.key for s in shown)
    assert set(SOUNDS) <= set(MADE)
    assert all(s.sense in ("hear", "feel") for s in shown if s.sounds)


def test_cards_say_what_a_sign_mostly_is_and_what_tells_which() -> None:
    found = {c.sign: c for c in cards(listed())}
    assert set(found) == set(ASKED)
    for card in found.values():
        chances = [c.chance for c in card.causes]
        assert len(chances) == MOST_CAUSES and chances == sorted(chances, reverse=True)
        named = {c.name for c in card.causes}
        pointed = {a.cause for k in card.checks for a in k.answers if a.cause}
        assert pointed and pointed <= named, card.sign
    assert found["drift"].causes[0].key == "fence_off_drift"
    tick = {a.words: a.cause for k in found["tick"].checks for a in k.answers}
    assert "Weld proud or stepped" in tick.values()


def test_a_card_of_what_may_come_apart_runs_nothing() -> None:
    known = listed()
    found = {c.sign: c for c in cards(known)}
    for card in found.values():
        if to_look_at(infer(Told({card.sign: 1.0}))):
            assert not any(known.check_of[k.key].runs for k in card.checks), card.sign
    assert [c.sign for c in found.values() if to_look_at(infer(Told({c.sign: 1.0})))]


def test_an_answer_points_only_at_a_cause_that_it_is_likelier_of() -> None:
    """What is left over when others are ruled out is not pointed at."""
    known = listed()
    for card in cards(known):
        names = {c.name: c.key for c in card.causes}
        for check in card.checks:
            model = known.check_of[check.key]
            for answer, column in zip(check.answers, model.chances.T, strict=True):
                if answer.cause:
                    place = known.place[names[answer.cause]]
                    assert column[place] >= 1.5 * column[-1], (card.sign, check.key)


def test_a_complaint_is_asked_of_one_sign_and_a_remedy_says_what_goes() -> None:
    found = infer(Told({"burn": 1.0, "lean": 1.0, "tick": 0.0}))
    assert asked_of(found, "when_began") == "Burn marks"
    assert asked_of(found, "pluck") == ""
    assert asked_of(infer(Told({"burn": 1.0})), "when_began") == ""
    assert clears(found, "dull") == ("Burn marks",)
    assert clears(found, "table_out_of_square") == ("Cut leans",)


@pytest.mark.parametrize(
    ("reads", "value", "words"),
    [
        ("tension_released", 1.0, "By the record it ran slack."),
        ("fence_matched_to_drift", 0.0, "By the card the fence was not set to the drift."),
        ("hits_since_sharpening", 1.0, "The log has 1 hit since the last sharpening."),
        ("days_since_tension", 21.0, "Tension was last measured 21 days ago."),
        (
            "hours_since_alignment",
            1234.0,
            "The saw has run 1\u202f200 hours since the wheels were checked for plane.",
        ),
    ],
)
def test_lines_of_the_records_are_said_as_people_would(
    reads: str, value: float, words: str
) -> None:
    row = next(r for r in record_evidence() if r.reads == reads)
    assert record_words(row, value) == words
