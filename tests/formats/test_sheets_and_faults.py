"""Printed sheets at true size, and pydantic's faults in our words."""

import re
from typing import Annotated, Literal

import pytest
from pydantic import Field

from jade_ribbon.core.errors import Fault, InputError, refuse
from jade_ribbon.formats.radius_card import A4_MM, MARGIN_MM, CardLine, pdf, shown_on_paper, svg
from jade_ribbon.formats.validation import Strict, read_json

LINES = [
    CardLine("K-01", "6.35 x 0.64", 14.2, 17.7),
    CardLine("K-10", "6.35 x 0.64", 14.3, 17.9),
    CardLine("K-05", "19 x 0.81", 100.6, 125.8),
    CardLine("M-01", "31.75 x 0.89", 260.0, 325.0),
]


def test_only_what_fits_the_sheet_is_drawn_and_equals_share_a_line() -> None:
    kept = shown_on_paper(LINES)
    assert [c.label for c in kept] == ["K-01, K-10", "K-05"]
    assert all(c.tightest_mm <= A4_MM[0] - 2 * MARGIN_MM for c in kept)


def test_the_svg_is_in_true_millimetres_with_a_line_to_check() -> None:
    sheet = svg(LINES, "Radius card & more")
    assert 'width="210.0mm" height="297.0mm" viewBox="0 0 210.0 297.0"' in sheet
    assert "h100m0" in sheet
    radii = {float(r) for r in re.findall(r"A([\d.]+) [\d.]+ 0 0 1", sheet)}
    assert radii == {14.2, 17.7, 100.6, 125.8}
    assert sheet.count("stroke-dasharray") == 2
    assert "Radius card &amp; more" in sheet


def test_the_pdf_is_one_a4_page() -> None:
    page = pdf(LINES, "Karte – Größe")
    assert page.startswith(b"%PDF-")
    box = re.search(rb"/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]", page)
    assert box is not None
    assert [float(v) * 25.4 / 72 for v in box.groups()] == [
        pytest.approx(210, abs=0.1),
        pytest.approx(297, abs=0.1),
    ]


def test_an_empty_rack_still_prints() -> None:
    assert svg([], "x").endswith("</svg>")
    assert pdf([], "x").startswith(b"%PDF-")


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
    return {f.path: f.message for f in caught.value.faults}


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
