"""Pydantic's faults in our words."""

from typing import Annotated, Literal

import pytest
from pydantic import Field

from jade_ribbon.core.quantities.errors import Fault, InputError, refuse
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.validation import Strict, read_json


class Inner(Strict):
    """A part."""

    width_mm: Annotated[float, Field(gt=0, le=400)]
    kind: Literal["a", "b"]


class Outer(Strict):
    """A whole."""

    inner: Inner
    names: Annotated[list[Annotated[str, Field(max_length=3)]], Field(max_length=2)]
    count: Annotated[int, Field(ge=1, le=9)] = 1


def faults(text: str) -> dict[str, str]:
    with pytest.raises(InputError) as caught:
        read_json(Outer, text)
    return {f.path: metric(f.message) for f in caught.value.faults}


@pytest.mark.parametrize(
    ("text", "path", "words"),
    [
        ('{"names":[]}', "inner", "is missing"),
        (
            '{"inner":{"width_mm":0,"kind":"a"},"names":[]}',
            "inner.width_mm",
            "0 is out of range; accepted: more than 0",
        ),
        (
            '{"inner":{"width_mm":500,"kind":"a"},"names":[]}',
            "inner.width_mm",
            "500 is out of range; accepted: at most 400",
        ),
        (
            '{"inner":{"width_mm":5,"kind":"c"},"names":[]}',
            "inner.kind",
            "'c' is not accepted; accepted: 'a' or 'b'",
        ),
        (
            '{"inner":{"width_mm":5,"kind":"a","hue":1},"names":[]}',
            "inner.hue",
            "is not a known key; accepted: width_mm, kind",
        ),
        (
            '{"inner":{"width_mm":5,"kind":"a"},"names":["abcd"]}',
            "names.0",
            "'abcd' is too short or long; accepted: at most 3 letters",
        ),
        (
            '{"inner":{"width_mm":5,"kind":"a"},"names":[],"count":true}',
            "count",
            "True is not accepted; accepted: a whole number",
        ),
        ("nonsense", "", "invalid JSON"),
    ],
)
def test_each_fault_names_field_value_and_range(text: str, path: str, words: str) -> None:
    told = faults(text)
    assert words in told[path], told


def test_all_faults_come_at_once() -> None:
    told = faults('{"inner":{"width_mm":-1,"kind":"z"},"names":["abcd"],"extra":1}')
    assert set(told) == {"inner.width_mm", "inner.kind", "names.0", "extra"}


def test_long_values_are_cut_short_in_the_words() -> None:
    told = faults('{"inner":{"width_mm":5,"kind":"' + "x" * 500 + '"},"names":[]}')
    assert len(told["inner.kind"]) < 120


def test_faults_carry_their_path_outward() -> None:
    inner = Fault("width_mm", "no", 3)
    assert inner.under("bands.2") == Fault("bands.2.width_mm", "no", 3)
    assert Fault("", "no").under("0").path == "0"
    assert str(refuse("a", "is wrong")) == "a: is wrong"
