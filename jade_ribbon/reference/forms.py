"""What forms ask and offer: fields with their names and where to find them, and choices."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from jade_ribbon.reference.quantities import Kind
from jade_ribbon.reference.tables import rows_of


@dataclass(frozen=True)
class FormField:
    """A row of fields.csv: a figure of a form, or one of its list; what it is called, of what kind,
    by which quantity it is held, the word of the glossary that tells it, whether it is asked at
    first, before the details, and where to find it.
    """

    form: str
    key: str
    at: int | None
    label: str
    kind: Kind
    quantity: str
    term: str
    first: bool
    help: str


@dataclass(frozen=True)
class Choice:
    """A row of choices.csv: what may be chosen of a field; without a key, the field's own name."""

    field: str
    key: str
    name: str
    note: str


@lru_cache
def form_fields() -> tuple[FormField, ...]:
    """All fields, in the order they are asked."""
    return tuple(rows_of("fields", FormField))


@lru_cache
def choices() -> tuple[Choice, ...]:
    """All choices, in the order they are offered."""
    return tuple(rows_of("choices", Choice))


@lru_cache
def names_of(field: str) -> Mapping[str, str]:
    """What each choice of a field is called."""
    return {c.key: c.name for c in choices() if c.field == field}
