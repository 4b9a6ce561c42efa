"""A rule's constant pinned: a case with its answer by hand, that moves when the constant does."""

from collections.abc import Callable
from dataclasses import dataclass
from types import ModuleType

import pytest

CHANGED_BY = 1.5


@dataclass(frozen=True)
class Pin:
    """A constant of a module, a case that rests on it, and its answer worked out by hand."""

    module: ModuleType
    name: str
    case: Callable[[], object]
    answer: object

    def __str__(self) -> str:
        return f"{self.module.__name__.rsplit('.', 1)[-1]}.{self.name}"


def held(pin: Pin, monkeypatch: pytest.MonkeyPatch) -> None:
    """The case has its answer, and another one where the constant is half as large again."""
    exact = not isinstance(pin.answer, float)
    wanted = pin.answer if exact else pytest.approx(pin.answer, rel=1e-4)
    assert pin.case() == wanted
    old = getattr(pin.module, pin.name)
    new = max(old + 1, round(old * CHANGED_BY)) if isinstance(old, int) else old * CHANGED_BY
    monkeypatch.setattr(pin.module, pin.name, new)
    assert pin.case() != wanted
