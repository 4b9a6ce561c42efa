"""Sureness in words, and the rules that are named."""

import dataclasses

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.explanation.rules_at_work import rules_applied
from jade_ribbon.core.choosing.uncertainty.chances import Between, chances
from jade_ribbon.core.choosing.uncertainty.confidence import lot_words, money_between, sure
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.chances import chance_words
from tests.support.jobs import K07, with_cut, with_rules


@pytest.mark.parametrize(
    ("chance", "words"),
    [
        (1.0, "almost certainly"),
        (0.9, "about 9 in 10"),
        (0.74, "about 3 in 4"),
        (0.5, "about an even chance"),
        (0.26, "about 1 in 4"),
        (0.0, "hardly ever"),
    ],
)
def test_chances_are_said_as_people_say_them(chance: float, words: str) -> None:
    assert chance_words(chance) == words


@pytest.mark.parametrize(
    ("low", "high", "words"),
    [
        (2.713, 4.667, "2.7 to 4.7"),
        (31.2, 78.9, "31 to 79"),
        (0.512, 0.534, "0.51 to 0.53"),
        (1.0, 1.0, "1.00"),
    ],
)
def test_money_is_no_finer_than_its_spread(low: float, high: float, words: str) -> None:
    assert money_between(Between(low, high)) == words


def test_a_toss_up_is_told_with_what_decides(job: Job) -> None:
    twin = dataclasses.replace(K07, steel="carbon_flexback", label="C-1")
    close = dataclasses.replace(job, bands=(K07, twin))
    choice = choose(close)
    said = sure(choice, chances(choice, close), "€")
    assert said is not None
    first = choice.ranked[0].evaluation.facts.band.label
    other = {"K-07": "C-1", "C-1": "K-07"}[first]
    assert said.too_close.startswith(f"Too close to call against {other}: ")
    assert said.settles.startswith("What decides between them most is the ")
    assert said.guesses.startswith("Guessed, not from a table: your push")
    alone = dataclasses.replace(job, bands=(K07,))
    lonely = sure(choose(alone), chances(choose(alone), alone), "€")
    assert lonely is not None and lonely.too_close == "" == lonely.settles
    assert sure(choose(dataclasses.replace(job, bands=())), None, "€") is None


def test_a_lot_says_its_bands(job: Job) -> None:
    few, many = (with_cut(dataclasses.replace(job, bands=(K07,)), count=n) for n in (7, 4000))
    short, long = choose(few).ranked[0].lot, choose(many).ranked[0].lot
    assert short is not None and long is not None
    assert lot_words(short) == "one edge does them all"
    assert lot_words(long).startswith("about ") and "one after another" in lot_words(long)


def named(job: Job) -> set[str]:
    choice = choose(job)
    return {r.rule for r in rules_applied(choice.best, choice, job)}


def test_a_rule_that_moved_nothing_is_not_named(job: Job) -> None:
    assert not named(job) & {"kerf", "tension", "how_many_bands", "narrow_straight", "mill_speed"}
    assert "resaw_width" in named(job)
    assert "kerf" in named(with_rules(job, kerf="generous"))
    assert "tension" in named(with_rules(job, tension="light"))
    assert "feed_pace" in named(with_cut(job, finish="show"))
    assert named(dataclasses.replace(job, bands=())) == set()
