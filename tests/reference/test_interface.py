"""The interface holds no number and no word of the job that a table or the core has."""

import re
from pathlib import Path

import pytest

from jade_ribbon.core.choosing.conflicts import LIMIT_WORDS
from jade_ribbon.core.choosing.sentences import FINISH_WORDS
from jade_ribbon.core.edge.signs import signs
from jade_ribbon.core.quantities import constants
from jade_ribbon.core.quantities.chances import ENDS
from jade_ribbon.reference.care import accessories, holding
from jade_ribbon.reference.forms import choices, form_fields
from jade_ribbon.reference.quantities import units
from jade_ribbon.reference.tables import house_rules, operations

WEB = Path(__file__).parents[2] / "web" / "src"
SOURCES = {
    path: re.sub(r"(?m)^\s*(//|/?\*).*$|/\*.*?\*/|<!--.*?-->", "", path.read_text())
    for path in sorted(WEB.rglob("*"))
    if path.suffix in (".ts", ".svelte")
    and ".test." not in path.name
    and path.name not in ("schema.ts", "samples.ts")
}
TOLD_APART = 8
"""A word so short is also a word of every other thing."""
NUMBERS = {
    "mm in an inch": constants.MM_PER_INCH,
    "m in a foot": constants.M_PER_FT,
    "psi in a MPa": constants.PSI_PER_MPA,
    "N in a lbf": constants.N_PER_LBF,
    "steel's modulus": constants.E_MPA,
    **{f"{u.name} of {u.kinds[0]}": u.size for u in units() if len(f"{u.size:g}") > 4},
}
WORDS = sorted(
    {ENDS.under, ENDS.over}
    | {c.name for c in choices() if " " in c.name and len(c.name) > TOLD_APART}
    | {f.label for f in form_fields() if " " in f.label and len(f.label) > TOLD_APART}
    | {f.help for f in form_fields() if f.help}
    | {w for w in LIMIT_WORDS.values() if " " in w}
    | {w for w in FINISH_WORDS.values() if " " in w}
    | {s.name for s in signs() if " " in s.name}
    | {r.title for r in house_rules().values() if " " in r.title}
    | {o.name for o in operations().values() if " " in o.name}
    | {a.title for a in accessories().values() if " " in a.title}
    | {h.name for h in holding().values() if hasattr(h, "name") and " " in h.name}
)


def holders(pattern: str) -> list[str]:
    """Files of the interface in which a pattern stands."""
    looked_for = re.compile(pattern)
    return [str(p.relative_to(WEB)) for p, text in SOURCES.items() if looked_for.search(text)]


def test_the_interface_was_looked_at() -> None:
    assert len(SOURCES) > 200 and len(WORDS) > 150
    assert holders(r"fieldsOf\(") and holders(r"choicesOf")


@pytest.mark.parametrize("word", WORDS)
def test_no_word_of_the_tables_stands_in_the_interface(word: str) -> None:
    assert holders(rf"[\"'`>]\s*{re.escape(word)}\s*[\"'`<]") == []


@pytest.mark.parametrize("name", NUMBERS)
def test_no_number_of_the_job_stands_in_the_interface(name: str) -> None:
    digits = f"{NUMBERS[name]:.7g}"
    assert holders(rf"(?<![\d.]){re.escape(digits)}\d*\b") == []


ASKED = re.compile(r"(fieldsOf|choicesOf|called)(?:<[^(]*>)?\(\s*\"(\w+)\"")


def test_what_the_interface_asks_of_the_tables_is_there() -> None:
    forms, fields = {f.form for f in form_fields()}, {c.field for c in choices()}
    asked = {found for text in SOURCES.values() for found in ASKED.findall(text)}
    assert len(asked) > 25
    unknown = {(by, key) for by, key in asked if key not in (forms if by == "fieldsOf" else fields)}
    assert unknown == set()


def test_what_the_tables_offer_is_asked_for() -> None:
    told = " ".join(SOURCES.values())
    for key in {f.form for f in form_fields()} | {c.field for c in choices()}:
        assert f'"{key}"' in told, key
