"""Every quantity a formula takes, held to its range (reference: quantities)."""

import functools
import inspect
import math
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Any, ParamSpec, TypeVar

import numpy as np

from jade_ribbon.core.quantities.arrays import is_array
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.reference.quantities import LEAST, Range, ranges

P = ParamSpec("P")
R = TypeVar("R")


RANGES: Mapping[str, Range] = ranges("formula")


def fault_in(name: str, value: object) -> Fault | None:
    """The fault of a value for a named quantity, or None when it is accepted."""
    accepted = RANGES[name]
    if accepted.choices:
        if value in accepted.choices:
            return None
        return Fault(name, f"{value!r} is not accepted; give {accepted.words()}", value)
    if isinstance(value, np.ndarray):
        bad = [float(v) for v in (value.min(), value.max()) if not accepted.holds(float(v))]
        value = bad[0] if bad else accepted.high
        if not bad:
            return None
    if isinstance(value, bool) or not isinstance(value, (int, float)):
        return Fault(name, f"{value!r} is not a number; give {accepted.words()}", value)
    if not accepted.holds(float(value)):
        return Fault(name, f"{value:g} is out of range; accepted: {accepted.words()}", value)
    return None


_columns_checked: ContextVar[bool] = ContextVar("columns checked", default=False)


@contextmanager
def columns_checked() -> Iterator[None]:
    """Inside, arrays are not held to their ranges: the single figures they vary were, before.

    Single numbers are checked as ever, and so is every result that must be finite.
    """
    token = _columns_checked.set(True)
    try:
        yield
    finally:
        _columns_checked.reset(token)


def within_limits(formula: Callable[P, R]) -> Callable[P, R]:
    """Check every argument of a formula against RANGES by its name before computing.

    Arguments whose default is None may be None. Raises InputError with all faults.
    """
    signature = inspect.signature(formula)
    ranges = {n: RANGES[n] for n in signature.parameters if n in RANGES}
    bounds = {n: (r.low, r.high) for n, r in ranges.items() if not r.choices}
    optional = {n for n, p in signature.parameters.items() if p.default is None}

    def faults_in(given: Mapping[str, Any]) -> list[Fault]:
        faults = []
        skipped = np.ndarray if _columns_checked.get() else None
        for name, value in given.items():
            # The common case first, without building anything.
            if value.__class__ is float and name in bounds:
                low, high = bounds[name]
                if low + LEAST < value < high:
                    continue
            elif value.__class__ is skipped:
                continue
            if name not in ranges or (value is None and name in optional):
                continue
            if (fault := fault_in(name, value)) is not None:
                faults.append(fault)
        return faults

    @functools.wraps(formula)
    def wrapper(*args: P.args, **kwargs: P.kwargs) -> R:
        given: Mapping[str, Any] = kwargs if not args else signature.bind(*args, **kwargs).arguments
        if faults := faults_in(given):
            raise InputError(faults)
        return formula(*args, **kwargs)

    return wrapper


def finite(**results: float) -> None:
    """Refuse a result that is not a finite number, naming it."""
    for name, value in results.items():
        if not (np.isfinite(value).all() if is_array(value) else math.isfinite(value)):
            raise InputError(
                [Fault(name, "the result is not a finite number for these inputs", None)]
            )
