"""A change said to a person: what it was done to, and each figure from what to what."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from jade_ribbon.core.quantities.words import Said, Words, quantity, sentence
from jade_ribbon.reference.quantities import Kind
from jade_ribbon.store.models import ChangeRow

NAMES: Mapping[str, str] = {
    "shop": "Settings of the shop",
    "saw": "Saw",
    "band": "Band",
    "event": "Record of a band",
    "job": "Job",
    "setup": "Set-up",
    "step": "Step",
    "run": "Run",
    "material": "Material",
    "band_type": "Band type",
    "scale_point": "Point of a tension scale",
    "alignment": "Truing of a wheel",
    "drift": "Drift trial",
    "defect": "Defect of a saw",
    "face": "Sawn face",
    "stock": "Stock",
    "fastener": "Metal in stock",
    "photo": "Photograph",
    "coil": "Coil",
    "making": "Band being made",
    "upkeep": "Upkeep",
    "commissioning": "Commissioning",
    "trouble": "Trouble",
    "sound": "Sound of a saw that ran well",
}
CALLED_BY = ("label", "name", "key", "kind", "text", "axis", "piece")
"""Fields that tell a person which record it is, the best first."""
UNITS: Mapping[str, tuple[Kind, float]] = {
    "_m_min": ("feed", 1.0),
    "_m_s": ("speed", 1.0),
    "_mm": ("length", 1.0),
    "_MPa": ("stress", 1.0),
    "_N": ("force", 1.0),
    "_minor": ("plain", 0.01),
}
"""What a field's ending says of its unit: the kind of quantity and what makes it one."""
POINTERS: Mapping[str, str] = {
    "mounted_band_id": "band",
    "band_id": "band",
    "saw_id": "saw",
    "job_id": "job",
    "stock_id": "stock",
    "parent_id": "stock",
    "coil_id": "coil",
    "run_id": "run",
}
"""Fields that point at a record of a noun."""
UNTOLD = ("deleted_at", "tension_since", "created_at", "device_at", "bending_share")
"""What goes with another field, or with the change itself."""
MOST_LETTERS = 60
EMPTY = "nothing"


@dataclass(frozen=True)
class Difference:
    """One field of a change, in words."""

    field: str
    before: Said
    after: Said


def called(record: Mapping[str, Any]) -> str:
    """What a record is called; nothing where it has no name."""
    return next((str(record[k]) for k in CALLED_BY if record.get(k)), "").replace("_", " ")


def title(change: ChangeRow, name_of: Callable[[str, int], str]) -> str:
    """What a change was done to: 'Band K-07', 'Run on K-07'.

    `name_of` tells what a record is called, by its noun and number.
    """
    name, record = NAMES.get(change.noun, change.noun), change.after or change.before or {}
    if change.noun == "shop":
        return name
    words = f"{name} {called(record)}".strip()
    band = record.get("band_id")
    return words if band is None or change.noun == "job" else f"{words} on {name_of('band', band)}"


def differences(
    change: ChangeRow, fields: Mapping[str, Any], name_of: Callable[[str, int], str]
) -> list[Difference]:
    """Each field changed; of one that holds others, those within it.

    `name_of` tells what a record is called, by its noun and number.
    """
    before = change.before or {}
    found = []
    for name, value in fields.items():
        if name in UNTOLD:
            continue
        was = before.get(name)
        if isinstance(value, dict) and isinstance(was, dict):
            found += [
                Difference(
                    f"{_words(name)}, {_words(key)}",
                    _said(key, was.get(key)),
                    _said(key, value.get(key)),
                )
                for key in {**was, **value}
                if was.get(key) != value.get(key)
            ]
        else:
            was, value = (_pointed(name, v, name_of) for v in (was, value))
            found.append(Difference(_words(name), _said(name, was), _said(name, value)))
    return found


def _pointed(name: str, value: Any, name_of: Callable[[str, int], str]) -> Any:
    """What a number points at, by its name."""
    noun = POINTERS.get(name)
    return value if noun is None or value is None else name_of(noun, value)


def _ending(name: str) -> str | None:
    return next((end for end in UNITS if name.endswith(end)), None)


def _words(name: str) -> str:
    """A field's name in words, its unit left out."""
    plain = name.removesuffix("_id") if name in POINTERS else name.removesuffix(_ending(name) or "")
    return plain.replace("_", " ")


def _said(name: str, value: Any) -> Said:
    end = _ending(name)
    if value is None or value in ("", [], {}):
        return EMPTY
    if name.endswith("_at"):
        return str(value)[: len("2026-01-31")]
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, (int, float)) and end is not None:
        kind, factor = UNITS[end]
        found: Words = quantity(value * factor, kind)
        return sentence(found)
    text = f"{value:g}" if isinstance(value, float) else str(value)
    text = text.replace("_", " ") if name != "note" else text
    return text if len(text) <= MOST_LETTERS else f"{text[: MOST_LETTERS - 1]}…"
