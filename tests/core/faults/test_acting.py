"""Which check now, and when it is good enough to act."""

import pytest

from jade_ribbon.core.faults.acting import (
    acting,
    check_now,
    known_already,
    stops,
    to_look_at,
)
from jade_ribbon.core.faults.diagnosis import Diagnosis, Told, infer
from jade_ribbon.core.faults.knowledge import listed
from jade_ribbon.core.faults.next_check import offers
from jade_ribbon.reference.faults import causes, checks


def now_of(found: Diagnosis, **more: bool):  # type: ignore[no-untyped-def]
    return check_now(found, offers(found), **more)


def test_what_may_come_apart_is_looked_at_before_the_saw_runs_again() -> None:
    found = infer(Told({"tick": 1.0, "vibration": 0.75}))
    watched = to_look_at(found)
    assert "weld_proud" in watched
    chosen = now_of(found).offer
    assert chosen is not None and not checks()[chosen.check].runs
    best = offers(found)[0]
    if checks()[best.check].runs:
        place = listed().place[watched[0]]
        assert place in listed().check_of[chosen.check].speaks


def test_once_looked_at_and_sound_the_saw_may_run() -> None:
    found = infer(Told({"tick": 1.0}, {}, {"band_turn": "sound", "weld_chalk": "free"}))
    assert not set(to_look_at(found)) & {"crack", "weld_proud", "tooth_missing"}
    blind = infer(Told({"tick": 1.0}, {}, {"weld_chalk": "could_not_tell"}))
    assert "weld_proud" in to_look_at(blind)


def test_a_quick_look_wins_only_within_a_tenth() -> None:
    found = infer(Told({"lean": 1.0}))
    best = offers(found)[0]
    chosen = now_of(found).offer
    assert chosen is not None
    assert chosen.check == best.check or chosen.bits_per_min >= 0.9 * best.bits_per_min


def test_wheels_come_before_guides_by_house_rule_only_within_a_tenth() -> None:
    """Over all single signs: where the rule changes the check, it says so and costs under 10 %."""
    changed = 0
    for sign in listed().signs:
        found = infer(Told({sign: 1.0}))
        ruled, plain = now_of(found, wheels_first=True), now_of(found, wheels_first=False)
        assert ruled.offer is not None and plain.offer is not None
        if any("House rule" in w for w in ruled.why):
            changed += 1
            assert ruled.offer.bits_per_min >= 0.9 * offers(found)[0].bits_per_min
        else:
            assert ruled.offer.check == plain.offer.check or not plain.why
    assert changed < len(listed().signs)


def test_acting_waits_for_danger_and_for_cheaper_checks() -> None:
    found = infer(Told({"tick": 1.0}))
    said = acting(found, now_of(found))
    assert not said.act and said.words.startswith("Not yet:")
    dear = infer(Told({"hunts": 1.0}, {}, {"band_turn": "sound", "weld_chalk": "free"}))
    verdict = acting(dear, now_of(dear))
    offered = now_of(dear).offer
    assert offered is not None
    assert verdict.act == (verdict.wrong_costs_min < offered.minutes and not to_look_at(dear))


def test_a_cheap_remedy_of_an_unlikely_cause_is_not_called_good_enough() -> None:
    found = infer(Told({"packed": 1.0}, {"bending_life_share": 0.1, "hits_since_sharpening": 0.0}))
    said = acting(found, now_of(found))
    if said.act and said.chance < 0.5:
        assert said.words.startswith("Not sure, but cheap to try")


def test_a_likely_stop_is_acted_on_first() -> None:
    found = infer(Told({"gullet_cracks": 1.0}, {}, {"band_turn": "one_crack"}))
    said = acting(found, now_of(found))
    assert causes()[said.cause].harm == "stop" and said.act
    assert next(s.key for s in stops(found)) == "gullet_cracks"
    assert said.cause in [s.key for s in stops(found)]


@pytest.mark.parametrize("sign", ["smoke", "sparks", "snaps_body", "teeth_stripped"])
def test_signs_that_stop_are_shown_first(sign: str) -> None:
    assert stops(infer(Told({sign: 1.0})))[0].key == sign
    assert not [s for s in stops(infer(Told({sign: 0.0}))) if s.key == sign]


def test_no_check_left_is_said() -> None:
    found = infer(Told({"lean": 1.0}))
    said = acting(found, check_now(found, ()))
    assert "No check is left" in said.words and not said.act


def test_a_fact_of_the_records_is_not_asked_again() -> None:
    assert known_already({"dullness": 1.0}) == {}
    assert known_already({"feed_under_floor", "teeth_in_cut"}) == {
        "teeth_count": "teeth_in_cut",
        "feed_time": "feed_under_floor",
    }
