"""An answer of the command line for a person: names in words, figures rounded, with units."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from jade_ribbon.core.quantities.words import figure

DIGITS_OF_JSON = 6
"""Significant digits of a figure as data."""
DIGITS = 3
UNITS: Mapping[str, str] = {
    "m_min": "m/min",
    "m_s": "m/s",
    "um_per_100mm": "µm on 100 mm",
    "N_mm": "N/mm",
    "mm": "mm",
    "mm2": "mm²",
    "MPa": "MPa",
    "psi": "psi",
    "N": "N",
    "kW": "kW",
    "W": "W",
    "m": "m",
    "s": "s",
    "min": "min",
    "h": "h",
    "deg": "°",
    "Hz": "Hz",
}
"""Endings of names, the longer first where one holds another."""


def rounded(value: Any) -> Any:
    """A record with its figures to six significant digits.

    >>> rounded({"a": [1.23456789, 3]})
    {'a': [1.23457, 3]}
    """
    if isinstance(value, Mapping):
        return {key: rounded(v) for key, v in value.items()}
    if isinstance(value, list | tuple):
        return [rounded(v) for v in value]
    return float(f"{value:.{DIGITS_OF_JSON}g}") if isinstance(value, float) else value


def named(key: str) -> tuple[str, str]:
    """A name in words, and the unit at its end.

    >>> named("feed_m_min"), named("teeth_in_cut")
    (('feed', 'm/min'), ('teeth in cut', ''))
    """
    for ending, unit in sorted(UNITS.items(), key=lambda pair: -len(pair[0])):
        if key.endswith(f"_{ending}"):
            return key.removesuffix(f"_{ending}").replace("_", " "), unit
    return key.replace("_", " "), ""


def _said(value: Any) -> str:
    if value is None:
        return "–"
    if isinstance(value, bool):
        return "yes" if value else "no"
    return figure(value, DIGITS) if isinstance(value, float) else str(value)


def _is_plain(value: Any) -> bool:
    return not isinstance(value, Mapping | list | tuple)


def _sentence(item: Mapping[str, Any]) -> str | None:
    """What a reason, a caution or a rule says; None for a record that is none of them."""
    return next(
        (str(item[key]) for key in ("text", "why", "words", "message") if key in item), None
    )


def _lines(value: Any, indent: str) -> Iterator[str]:
    if isinstance(value, Mapping):
        for key, held in value.items():
            name, unit = named(str(key))
            if _is_plain(held):
                ending = f" {unit}" if unit and held is not None else ""
                yield f"{indent}{name}: {_said(held)}{ending}"
            elif held:
                yield f"{indent}{name}:"
                yield from _lines(held, f"{indent}  ")
    elif isinstance(value, Sequence) and not isinstance(value, str):
        if all(_is_plain(item) for item in value):
            yield f"{indent}{', '.join(_said(item) for item in value)}"
            return
        for item in value:
            said = _sentence(item) if isinstance(item, Mapping) else None
            if said is not None:
                yield f"{indent}- {said}"
            else:
                first, *rest = list(_lines(item, f"{indent}  ")) or [f"{indent}  –"]
                yield f"{indent}- {first.strip()}"
                yield from rest
    else:
        yield f"{indent}{_said(value)}"


def readable(value: Any) -> str:
    """An answer as lines for a terminal.

    >>> print(readable({"speed_m_s": 14.512, "reasons": [{"key": "width", "text": "Widest."}]}))
    speed: 14.5 m/s
    reasons:
      - Widest.
    """
    return "\n".join(_lines(value, ""))
