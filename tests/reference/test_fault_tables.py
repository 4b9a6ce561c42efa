"""What must hold of the tables of fault finding, whoever changes a number in them."""

import itertools

import pytest

from jade_ribbon.core.faults.acting import ALREADY, LOOK_FIRST, SIGN_STOPS
from jade_ribbon.core.faults.diagnosis import STOPPING_SIGNS
from jade_ribbon.core.faults.readings import RANGES, VALUE
from jade_ribbon.reference.faults import (
    causes,
    checks,
    instruments,
    outcome_chances,
    record_evidence,
    shown_by,
    sign_texts,
)


def test_pairs_name_known_causes_and_signs_once_each() -> None:
    pairs = [(p.cause, p.symptom) for p in shown_by()]
    assert len(set(pairs)) == len(pairs)
    assert {c for c, _ in pairs} == set(causes())
    assert {s for _, s in pairs} == set(sign_texts())


def test_chances_are_between_never_and_always() -> None:
    for cause in causes().values():
        assert 0.0 < cause.prior < 0.2, cause.key
        assert cause.remedy_minutes > 0, cause.key
    assert all(0.0 < s.leak < 0.1 for s in sign_texts().values())
    assert all(0.0 < p.chance < 1.0 for p in shown_by())
    assert all(0.0 < o.chance < 1.0 for o in outcome_chances())


def test_a_sign_stands_out_of_its_leak_where_a_cause_shows_it() -> None:
    for pair in shown_by():
        assert pair.chance > 2.0 * sign_texts()[pair.symptom].leak, pair


def test_answers_of_a_check_and_a_cause_sum_to_one() -> None:
    known = checks()
    rows = sorted(outcome_chances(), key=lambda o: (o.check, o.cause))
    for (check, cause), group in itertools.groupby(rows, key=lambda o: (o.check, o.cause)):
        chances = {o.outcome: o.chance for o in group}
        assert set(chances) == set(known[check].outcomes), (check, cause)
        assert sum(chances.values()) == pytest.approx(1.0), (check, cause)
        assert cause == "none" or cause in causes(), (check, cause)


def test_every_check_has_words_for_each_answer_and_a_row_for_nobody() -> None:
    for check in checks().values():
        assert len(check.outcomes) == len(check.outcome_words) >= 2, check.key
        assert any(o.check == check.key and o.cause == "none" for o in outcome_chances())


def test_isolating_is_said_and_so_is_running_with_doors_shut() -> None:
    for check in checks().values():
        assert ("Isolate" in check.do or "isolate" in check.do) == check.isolate, check.key
        if check.runs:
            assert "oors shut" in check.do and "guard down" in check.do, check.key


def test_short_checks_come_first() -> None:
    minutes = [c.minutes for c in checks().values()]
    assert minutes == sorted(minutes)


def test_every_cause_is_told_by_a_check_at_rest() -> None:
    told: dict[str, set[str]] = {}
    for row in outcome_chances():
        if not checks()[row.check].runs:
            told.setdefault(row.cause, set()).add(row.check)
    assert set(causes()) - set(told) == set()


def test_record_evidence_goes_up_its_scale_and_moves_odds_both_ways() -> None:
    for row in record_evidence():
        assert row.at_low < row.at_high, row.key
        assert min(row.odds_low, row.odds_high) < 1.0 < max(row.odds_low, row.odds_high), row.key
        assert row.cause in causes() and row.reads in RANGES, row.key
        assert VALUE in row.words, row.key
        low, high = RANGES[row.reads]
        assert low <= row.at_low and row.at_high <= high, row.key
    assert {r.reads for r in record_evidence()} == set(RANGES)


def test_what_the_rules_name_is_in_the_tables() -> None:
    assert set(LOOK_FIRST) <= set(causes())
    assert all(causes()[c].harm == "stop" or c == "fatigue" for c in LOOK_FIRST)
    assert set(STOPPING_SIGNS) < set(SIGN_STOPS) <= set(sign_texts())
    assert set(SIGN_STOPS) - set(STOPPING_SIGNS) == {"climbs_forward", "climbs_backward"}
    assert set(ALREADY) <= set(checks())
    assert {r for readings in ALREADY.values() for r in readings} <= set(RANGES)
    assert "nothing" not in instruments() and len(instruments()) == 12
