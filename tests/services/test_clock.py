"""The shop's clock goes on, whatever is done to the machine's."""

from datetime import UTC, datetime, timedelta

import pytest

from jade_ribbon.services import clock
from jade_ribbon.services.clock import AHEAD, Clock

NOON = datetime(2026, 3, 1, 12, tzinfo=UTC)


class Machine:
    """A machine's clock, and the time that really passes."""

    def __init__(self) -> None:
        self.says, self.passed = NOON, 0.0

    def wait(self, seconds: float) -> None:
        self.passed += seconds
        self.says += timedelta(seconds=seconds)


@pytest.fixture
def machine(monkeypatch: pytest.MonkeyPatch) -> Machine:
    found = Machine()
    monkeypatch.setattr(clock, "wall", lambda: found.says)
    monkeypatch.setattr(clock, "elapsed_s", lambda: found.passed)
    return found


def test_set_back_it_goes_on_by_the_time_that_passes(machine: Machine) -> None:
    shop = Clock()
    assert shop.now() == NOON
    machine.says -= timedelta(hours=3)
    machine.wait(600)
    assert shop.now() == NOON + timedelta(minutes=10)
    assert shop.behind() == timedelta(hours=3)
    machine.says += timedelta(hours=3)
    machine.wait(60)
    assert shop.now() == NOON + timedelta(minutes=11)
    assert shop.behind() == timedelta()


def test_set_forward_it_follows(machine: Machine) -> None:
    shop = Clock()
    machine.says += timedelta(days=2)
    assert shop.now() == NOON + timedelta(days=2)


def test_it_starts_no_earlier_than_the_latest_record(machine: Machine) -> None:
    shop = Clock()
    shop.begin(NOON + timedelta(hours=5))
    machine.wait(30)
    assert shop.now() == NOON + timedelta(hours=5, seconds=30)
    shop.begin(NOON - timedelta(days=9))
    assert shop.now() == NOON + timedelta(seconds=30)


def test_a_jump_far_past_the_records_is_followed_and_asked_about(machine: Machine) -> None:
    shop = Clock()
    shop.begin(NOON - AHEAD - timedelta(days=1))
    assert shop.now() == NOON and shop.ahead() == AHEAD + timedelta(days=1)
    shop.is_right()
    assert shop.ahead() == timedelta()
    shop.begin(NOON - AHEAD + timedelta(days=1))
    assert shop.ahead() == timedelta()


def test_a_jump_said_to_be_wrong_is_followed_no_more_until_the_clock_is_back(
    machine: Machine,
) -> None:
    shop = Clock()
    shop.begin(NOON)
    machine.says += timedelta(days=800)
    machine.wait(60)
    assert shop.ahead() > AHEAD
    shop.is_wrong()
    machine.wait(60)
    assert NOON < shop.now() < NOON + timedelta(minutes=3) and shop.ahead() == timedelta()
    machine.says -= timedelta(days=799)
    assert shop.now() == machine.says
