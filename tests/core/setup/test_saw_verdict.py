"""One verdict on a saw: each thing against it keeps it from ready, each thing unseen is named."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.saw_verdict import (
    STOOD_H,
    SawFacts,
    SetUpFacts,
    TensionFacts,
    against_ready,
    saw_verdict,
)

TENSION = TensionFacts("on", 86.0, 0.04, 69.0, 103.0, 110.0, 3.0, "release")
WELL = SawFacts(
    band="A-01",
    damage="",
    look_first=False,
    misfits=(),
    tension=TENSION,
    speed_set_m_s=14.0,
    speeds_m_s=(14.0, 14.0),
    set_up=SetUpFacts(),
    troubles=(),
    stopping_defects=(),
    wheels_out=False,
    not_tested=(),
)


def tension(**changes: Any) -> SawFacts:
    return replace(WELL, tension=replace(TENSION, **changes))


def test_a_saw_looked_at_all_over_is_ready() -> None:
    found = saw_verdict(WELL)
    assert found.state == "ready" and not found.against and not found.not_looked_at


AGAINST = {
    "no band": (replace(WELL, band=""), "No band is on it."),
    "cracked": (replace(WELL, damage="It has a crack: scrap it"), "crack"),
    "hit": (replace(WELL, look_first=True), "was hit or came off: look over"),
    "too long": (replace(WELL, misfits=("3 600 mm long",)), "does not go on it: 3 600 mm long"),
    "slack": (tension(state="slack"), "It is slack"),
    "unknown": (tension(state="unknown"), "not known to be under tension"),
    "300 MPa in carbon": (tension(stress_MPa=300.0, reach_MPa=None), "300 MPa left"),
    "12 MPa": (tension(stress_MPa=12.0), "12.0 MPa left"),
    "over the frame": (tension(stress_MPa=101.0, reach_MPa=80.0), "101 MPa left"),
    "161 days on": (tension(hours_on=161 * 24.0), "for 160 days, against the house rule"),
    "no such speed": (replace(WELL, speed_set_m_s=25.0), "25.0 m/s"),
    "a defect": (replace(WELL, stopping_defects=("Door catch",)), "A defect stops it: Door catch"),
    "a trouble": (replace(WELL, troubles=("tick",)), "A trouble is open on it: tick"),
    "wheels out": (replace(WELL, wheels_out=True), "out of plane"),
    "on the teeth": (
        replace(WELL, set_up=SetUpFacts(out=("Behind the gullets: −2 mm left",))),
        "−2 mm left. Set it again.",
    ),
    "disturbed": (replace(WELL, set_up=SetUpFacts(to_check=("Drift",))), "Check again: Drift"),
}


@pytest.mark.parametrize("case", AGAINST)
def test_each_thing_against_a_saw_keeps_it_from_ready(case: str) -> None:
    facts, words = AGAINST[case]
    found = saw_verdict(facts)
    assert found.state == "not_ready"
    assert words in metric(found.words)


UNSEEN = {
    "set-up with A-01": replace(WELL, set_up=None),
    "tension read": tension(stress_MPa=None),
    "upper guides": replace(WELL, set_up=SetUpFacts(not_done=("Upper guides",))),
    "brake, switch and stop": replace(WELL, not_tested=("Brake, switch and stop",)),
}


@pytest.mark.parametrize("named", UNSEEN)
def test_what_nobody_looked_at_is_named_and_leaves_it_untold(named: str) -> None:
    found = saw_verdict(UNSEEN[named])
    assert found.state == "cannot_tell"
    assert found.not_looked_at == (named,) and named in metric(found.words)


def test_a_tension_may_stay_on_where_the_shop_says_so_or_till_the_night() -> None:
    assert saw_verdict(tension(hours_on=STOOD_H - 0.1)).state == "ready"
    assert saw_verdict(tension(hours_on=STOOD_H)).state == "not_ready"
    assert saw_verdict(tension(hours_on=3000.0, idle_rule="leave_on")).state == "ready"


def test_a_reading_that_may_be_out_is_not_ready() -> None:
    """100 MPa by a push, good to 25 %, may well be over 103."""
    assert saw_verdict(tension(stress_MPa=100.0, share=0.0)).state == "ready"
    assert saw_verdict(tension(stress_MPa=100.0, share=0.25)).state == "not_ready"


def test_less_tension_may_stay_where_somebody_says_so_but_never_more() -> None:
    allowed = SetUpFacts(tension_allowed=True)
    assert saw_verdict(replace(tension(stress_MPa=50.0), set_up=allowed)).state == "ready"
    assert saw_verdict(replace(tension(stress_MPa=150.0), set_up=allowed)).state == "not_ready"


def test_a_card_asks_about_the_saw_without_its_own_steps() -> None:
    facts = replace(WELL, set_up=SetUpFacts(out=("Guides: out",)), wheels_out=True)
    assert len(against_ready(facts)) == 2
    assert against_ready(facts, with_set_up=False) == (
        "Its wheels were out of plane when last read: true them.",
    )


GRAVITY = {"ready": 0, "cannot_tell": 1, "not_ready": 2}


@given(st.sets(st.sampled_from(sorted(AGAINST))), st.sampled_from(sorted(AGAINST)))
def test_one_thing_more_never_makes_it_bolder(known: set[str], more: str) -> None:
    def with_all(cases: set[str]) -> SawFacts:
        facts = WELL
        for case in sorted(cases):
            other = AGAINST[case][0]
            changed = {
                n: getattr(other, n) for n in vars(WELL) if getattr(other, n) != getattr(WELL, n)
            }
            facts = replace(facts, **changed)
        return facts

    before, after = (saw_verdict(with_all(cases)) for cases in (known, known | {more}))
    assert GRAVITY[after.state] >= GRAVITY[before.state]
