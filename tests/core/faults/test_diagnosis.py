"""From signs, records and answers to causes: exact, symmetric, and never bolder than it may be."""

import itertools
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.faults.diagnosis import (
    COULD_NOT_TELL,
    ON_A_MILL,
    Diagnosis,
    Told,
    evidence_odds,
    infer,
)
from jade_ribbon.core.faults.knowledge import Knowledge, check_model, listed, pairs_of, triples_of
from jade_ribbon.core.faults.next_check import diagnose, offers
from jade_ribbon.core.faults.readings import RANGES
from jade_ribbon.core.faults.telling import for_and_against
from jade_ribbon.core.quantities.chances import chance_words
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.reference.faults import RecordEvidence, record_evidence

SIGNS = st.dictionaries(
    st.sampled_from(listed().signs), st.sampled_from([0.0, 0.75, 1.0]), max_size=4
)
READS = st.dictionaries(
    st.sampled_from(sorted(RANGES)), st.floats(0.0, 1.0, allow_nan=False), max_size=4
)


@st.composite
def answered(draw: st.DrawFn) -> dict[str, str]:
    keys = draw(
        st.lists(st.sampled_from([c.key for c in listed().checks]), max_size=4, unique=True)
    )
    return {k: draw(st.sampled_from(listed().check_of[k].outcomes)) for k in keys}


def by_hand(told: Told, known: Knowledge) -> tuple[np.ndarray, float]:
    """The model of docs/model as it is written, set by set, in loops."""
    n = len(known.causes)
    odds = [p / (1 - p) for p in known.priors]
    for row in known.evidence:
        if row.reads in told.reads:
            x = (told.reads[row.reads] - row.at_low) / (row.at_high - row.at_low)
            x = min(max(x, 0.0), 1.0)
            odds[known.place[row.cause]] *= row.odds_low ** (1 - x) * row.odds_high**x
    total, held = 0.0, np.zeros(n)
    for size in range(4):
        for members in itertools.combinations(range(n), size):
            weight = math.prod(odds[c] for c in members)
            for sign, d in told.symptoms.items():
                s = known.sign_place[sign]
                p = 1 - (1 - known.leaks[s]) * math.prod(1 - known.shows[c, s] for c in members)
                weight *= d * p + (1 - d) * (1 - p)
            for key, outcome in told.answers.items():
                check = known.check_of[key]
                speak = [int(c) for c in check.speaks if c in members]
                row_of = speak[0] if speak else n
                weight *= check.chances[row_of, check.outcomes.index(outcome)]
            total += weight
            for c in members:
                held[c] += weight
    return held / total, total


def small(causes: int = 6) -> Knowledge:
    """Few causes with two signs, two checks and a line of the records."""
    rng = np.random.default_rng(3)
    shows = np.vstack([rng.uniform(0, 0.9, (causes, 2)), np.zeros(2)])
    chances = rng.dirichlet([1.0, 1.0, 1.0], causes + 1)
    chances[2:4] = chances[-1]
    certain = np.full((causes + 1, 2), [1.0, 0.0])
    certain[4] = [0.3, 0.7]
    common = {"minutes": 2.0, "needs": "nothing", "runs": False}
    return Knowledge(
        causes=tuple("abcdef"[:causes]),
        priors=rng.uniform(0.01, 0.1, causes),
        harms=("note",) * causes,
        signs=("s", "t"),
        leaks=np.array([0.02, 0.03]),
        shows=shows,
        checks=(
            check_model("k", outcomes=("x", "y", "z"), chances=chances, **common),  # type: ignore[arg-type]
            check_model("only", outcomes=("no", "yes"), chances=certain, **common),  # type: ignore[arg-type]
        ),
        evidence=(RecordEvidence("r", "b", "dullness", 0.2, 0.3, 0.9, 6.0, "{value}"),),
    )


@given(
    st.dictionaries(st.sampled_from(["s", "t"]), st.floats(0, 1), max_size=2),
    st.sampled_from(["x", "y", "z", None]),
    st.floats(0, 1),
)
def test_the_arrays_say_what_the_loops_say(
    signs: dict[str, float], outcome: str | None, dullness: float
) -> None:
    known = small()
    told = Told(signs, {"dullness": dullness}, {} if outcome is None else {"k": outcome})
    held, _ = by_hand(told, known)
    assert infer(told, known).chances == pytest.approx(held, abs=1e-12)


def test_the_next_check_is_worth_what_asking_it_would_bring() -> None:
    """Bits expected, against inferring anew for each of its answers."""
    found = infer(Told({"tick": 1.0, "burn": 0.75}, {"dullness": 0.5}, {"when_began": "crept"}))
    for offer in offers(found):
        left = 0.0
        for outcome, chance in offer.outcomes:
            after = infer(
                Told(
                    found.told.symptoms,
                    found.told.reads,
                    {**found.told.answers, offer.check: outcome},
                )
            )
            place = offer.outcomes.index((outcome, chance))
            assert offer.after[place] == pytest.approx(after.chances, abs=1e-9)
            left += chance * after.entropy_bits
        assert sum(p for _, p in offer.outcomes) == pytest.approx(1.0)
        assert offer.bits == pytest.approx(max(found.entropy_bits - left, 0.0), abs=1e-8)


def test_an_outcome_that_only_one_cause_can_give_makes_it_certain() -> None:
    known = small()
    assert infer(Told({"s": 1.0}, {}, {"only": "yes"}), known).chance("e") == pytest.approx(1.0)


@given(SIGNS, answered())
def test_the_order_of_answers_does_not_matter(
    signs: dict[str, float], answers: dict[str, str]
) -> None:
    one = infer(Told(signs, {}, answers))
    other = infer(Told(dict(reversed(signs.items())), {}, dict(reversed(answers.items()))))
    assert one.chances == pytest.approx(other.chances, abs=1e-12)


@given(SIGNS, READS, answered())
def test_chances_are_chances_and_the_first_is_the_likeliest(
    signs: dict[str, float], reads: dict[str, float], answers: dict[str, str]
) -> None:
    found = infer(Told(signs, reads, answers))
    assert float(found.weights.sum()) == pytest.approx(1.0)
    assert (found.chances >= 0).all() and (found.chances <= 1 + 1e-12).all()
    before = infer(Told()).chances
    spoken = [i for i in range(len(before)) if found.chances[i] > before[i] * (1 + 1e-9)]
    likeliest = max(spoken or range(len(before)), key=lambda i: found.chances[i])
    assert found.chance(found.first) == float(found.chances[likeliest])


@given(SIGNS, READS)
def test_only_what_something_speaks_for_is_among_the_first(
    signs: dict[str, float], reads: dict[str, float]
) -> None:
    found, before = infer(Told(signs, reads)), infer(Told()).chances
    first = found.likeliest(3)
    assert 1 <= len(first) <= 3
    if len(first) > 1:
        assert all(found.chances[i] > before[i] for i in first)


def test_a_dull_edge_is_not_first_where_nothing_speaks_for_it() -> None:
    """A tick each turn says nothing of dullness, which is the likeliest before anything is told."""
    nothing = infer(Told())
    assert nothing.first == "dull"
    ticks = infer(Told({"tick": 1.0}))
    keys = [ticks.knowledge.causes[i] for i in ticks.likeliest(3)]
    assert "dull" not in keys and "weld_proud" in keys


def test_a_mill_has_neither_side_gaps_nor_a_table() -> None:
    for sign in ("lean", "wander", "drift"):
        upright, mill = infer(Told({sign: 1.0})), infer(Told({sign: 1.0}, cannot_be=ON_A_MILL))
        for cause in ON_A_MILL:
            assert upright.chance(cause) > 0.0 and mill.chance(cause) == 0.0
        assert float(mill.weights.sum()) == pytest.approx(1.0)
        assert not {mill.knowledge.causes[i] for i in mill.likeliest(3)} & set(ON_A_MILL)


@given(SIGNS, answered())
def test_a_check_answered_is_not_asked_again_even_when_nobody_could_tell(
    signs: dict[str, float], answers: dict[str, str]
) -> None:
    told = Told(signs, {}, {**answers, "stock_look": COULD_NOT_TELL})
    found = infer(told)
    asked = {o.check for o in offers(found)}
    assert not asked & set(told.answers)
    plain = infer(Told(signs, {}, {k: v for k, v in answers.items() if k != "stock_look"}))
    assert found.chances == pytest.approx(plain.chances, abs=1e-12)


def test_an_answer_that_speaks_of_nobody_left_moves_nothing() -> None:
    """A table whose rows are all alike tells nothing, whatever comes out."""
    known = small()
    flat = check_model(
        "flat",
        minutes=1.0,
        needs="nothing",
        runs=False,
        outcomes=("x", "y"),
        chances=np.tile([0.3, 0.7], (7, 1)),
    )
    told = Told({"s": 1.0})
    with_it = Knowledge(
        known.causes,
        known.priors,
        known.harms,
        known.signs,
        known.leaks,
        known.shows,
        (*known.checks, flat),
        known.evidence,
    )
    before = infer(told, with_it)
    after = infer(Told({"s": 1.0}, {}, {"flat": "x"}), with_it)
    assert after.chances == pytest.approx(before.chances, abs=1e-12)
    assert next(o for o in offers(before) if o.check == "flat").bits == pytest.approx(0.0, abs=1e-9)


@given(SIGNS, st.sets(st.sampled_from(["light", "rule", "scrap", "feeler", "gloves"])))
def test_without_an_instrument_its_checks_are_not_offered(
    signs: dict[str, float], has: set[str]
) -> None:
    found = infer(Told(signs))
    offered = offers(found, has)
    needs = {o.check: found.knowledge.check_of[o.check].needs for o in offered}
    assert set(needs.values()) <= has | {"nothing"}
    kept = {o.check: o.bits for o in offers(found)}
    assert all(o.bits == pytest.approx(kept[o.check]) for o in offered)


@given(SIGNS, st.sampled_from(sorted(RANGES)))
def test_a_reading_that_is_not_known_is_no_evidence(signs: dict[str, float], reading: str) -> None:
    """What is left out is as if there were no such line; a neutral figure says the same."""
    without = infer(Told(signs))
    rows = [r for r in record_evidence() if r.reads == reading]
    assert without.pieces == infer(Told(signs)).pieces or signs
    for row in rows:
        low, high = math.log(row.odds_low), math.log(row.odds_high)
        neutral = row.at_low + (row.at_high - row.at_low) * (-low) / (high - low)
        assert evidence_odds(row, neutral) == pytest.approx(1.0)
    assert evidence_odds(rows[0], -1e9) == pytest.approx(rows[0].odds_low)
    assert evidence_odds(rows[0], 1e9) == pytest.approx(rows[0].odds_high)


def test_nothing_told_leaves_the_priors_nearly() -> None:
    """Only sets of over three causes are left out, which are a few in a hundred."""
    found = infer(Told())
    assert found.chances == pytest.approx(listed().priors, rel=0.12)


@pytest.mark.parametrize("causes", [3, 6])
def test_pairs_and_triples_point_at_their_sets(causes: int) -> None:
    known = small(causes) if causes == 6 else None
    sets = known.members if known else np.array([])
    if known is None:
        assert triples_of(3)[0, 1, 2] == 7 and pairs_of(3)[1, 0] == 4
        return
    assert tuple(sets[triples_of(6)[3, 5, 1]]) == (1, 3, 5)
    assert tuple(sets[pairs_of(6)[4, 2]]) == (2, 4, 6)
    assert triples_of(6)[2, 2, 4] == len(sets)


def test_a_stop_holds_back_whatever_runs_the_saw() -> None:
    found = infer(Told({"smoke": 0.75}))
    assert found.running_withheld
    assert not any(found.knowledge.check_of[o.check].runs for o in offers(found))
    assert not infer(Told({"smoke": 0.0})).running_withheld


def test_what_spoke_is_told_with_its_weight() -> None:
    found = infer(
        Told({"tick": 1.0, "fine_marks": 0.75}, {"runs_since_welding": 3}, {"when_began": "change"})
    )
    spoke = for_and_against(found, "weld_proud")
    assert spoke.spoke_for[0].words == "Tick each turn, clear"
    assert all(s.times > 1 for s in spoke.spoke_for) and all(s.times < 1 for s in spoke.against)
    assert for_and_against(found, "dull").against[0].times < 1


def test_faults_are_all_told_at_once_with_what_is_accepted() -> None:
    with pytest.raises(InputError) as caught:
        infer(
            Told({"tock": 1.0, "tick": 1.5}, {"dullness": math.nan}, {"pluck": "loud", "ask": "x"})
        )
    said = {f.path: str(f.message) for f in caught.value.faults}
    assert set(said) == {
        "symptoms.tock",
        "symptoms.tick",
        "reads.dullness",
        "answers.pluck",
        "answers.ask",
    }
    assert said["symptoms.tick"] == "1.5 is not accepted; accepted: 0 to 1"
    assert said["answers.pluck"] == "'loud' is not known; accepted: low, on, high"


def test_answers_that_cannot_all_be_so_are_refused() -> None:
    known = small()
    known.priors[4] = 1e-300
    hopeless = Knowledge(
        known.causes,
        known.priors,
        known.harms,
        known.signs,
        known.leaks,
        known.shows,
        (
            check_model(
                "never",
                minutes=1.0,
                needs="nothing",
                runs=False,
                outcomes=("no", "yes"),
                chances=np.tile([1.0, 0.0], (7, 1)),
            ),
        ),
        known.evidence,
    )
    with pytest.raises(InputError, match="cannot all be so"):
        infer(Told({}, {}, {"never": "yes"}), hopeless)


@given(st.floats(0.0, 1.0))
def test_a_chance_is_said_in_one_of_seven_ways(chance: float) -> None:
    assert chance_words(chance)


def test_diagnose_wants_objects() -> None:
    with pytest.raises(InputError, match="give an object"):
        diagnose(symptoms=[], reads={}, answers={})  # type: ignore[arg-type]


def test_a_diagnosis_knows_its_first() -> None:
    found: Diagnosis = infer(Told({"lean": 1.0}))
    assert found.first == "table_out_of_square"
