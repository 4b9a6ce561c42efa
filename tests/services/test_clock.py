"""The shop's clock goes on, whatever is done to the machine's."""

from datetime import UTC, datetime, timedelta

import pytest

from jade_ribbon.services import clock
from jade_ribbon.services.clock import Clock

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
