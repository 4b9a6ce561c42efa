"""Arithmetic that takes a number or an array of them: a formula is written once for both.

The formulas are typed for single numbers. An array is let in by `as_figure`, once, at the door;
NumPy's broadcasting does the rest, and `as_array` takes the result out again.
"""

import math
from collections.abc import Callable
from functools import reduce
from typing import Any, cast

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


def as_figure(values: Array) -> float:
    """An array passed where a formula expects a number."""
    return cast(float, values)


def as_array(figure: float) -> Array:
    """What a formula made of an array; a single number is an array of one."""
    return np.asarray(figure, dtype=np.float64)


def is_array(figure: object) -> bool:
    """Whether this figure is many."""
    return isinstance(figure, np.ndarray)


def _either(single: Callable[[float], float], many: Callable[[Any], Any]) -> Callable[[Any], float]:
    def apply(value: Any) -> float:
        return cast(float, many(value)) if isinstance(value, np.ndarray) else single(value)

    return apply


sqrt = _either(math.sqrt, np.sqrt)
exp = _either(math.exp, np.exp)
sin = _either(math.sin, np.sin)
atan = _either(math.atan, np.arctan)


def least(*values: float) -> float:
    """The smallest of some figures, place by place.

    >>> least(3.0, 2.0)
    2.0
    """
    return reduce(np.minimum, values) if any(map(is_array, values)) else min(values)


def most(*values: float) -> float:
    """The largest of some figures, place by place."""
    return reduce(np.maximum, values) if any(map(is_array, values)) else max(values)


def where(condition: object, yes: float, no: float) -> float:
    """One figure or the other, place by place.

    >>> where(2.0 > 1.0, 10.0, 20.0)
    10.0
    """
    if isinstance(condition, np.ndarray):
        return cast(float, np.where(condition, yes, no))
    return yes if condition else no


def somewhere(condition: object) -> bool:
    """Whether a condition holds for any of the figures."""
    return bool(condition.any()) if isinstance(condition, np.ndarray) else bool(condition)


def one_of(figure: Any) -> float:
    """A single number to name in an error: of an array its first."""
    return float(figure.flat[0]) if isinstance(figure, np.ndarray) else float(figure)
