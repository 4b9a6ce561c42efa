"""Sheets of bands as people keep them: headings guessed, quantities read, faults named."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.bands_csv import guessed, read_bands
from jade_ribbon.reference.tables import band_columns, band_words, steels, tooth_forms

SHEET = """Tag;Width;Teeth;Steel;Loop;Bought;Sharpness
K-01;25;2/3;bi-metal;4580;2025-03-12;sharp
K-02;3/4";4 tpi;carbon;4,58 m;12.3.2025;worn
"""


def faults(text: str, *, inch: bool = False) -> list[str]:
    return [
        f"{f.path}: {metric(f.message)}" for r in read_bands(text, inch=inch).rows for f in r.faults
    ]


def test_a_sheet_is_read_with_its_own_headings_and_units() -> None:
    first, second = read_bands(SHEET, inch=False).rows
    assert first.values == {
        "label": "K-01",
        "width_mm": 25.0,
        "tpi": (2.0, 3.0),
        "steel": "bimetal_m42",
        "length_mm": 4580.0,
        "since": date(2025, 3, 12),
        "looks": "keen",
    }
    assert second.values["width_mm"] == pytest.approx(19.05)
    assert second.values["length_mm"] == pytest.approx(4580)
    assert (second.values["tpi"], second.values["looks"]) == ((4.0, 4.0), "tired")
    assert not first.faults + second.faults


@pytest.mark.parametrize("mark", ["\t", ";", ",", "|"])
def test_any_usual_mark_parts_the_cells(mark: str) -> None:
    text = f"label{mark}width_mm{mark}tpi\nA{mark}13{mark}6\n"
    (row,) = read_bands(text, inch=False).rows
    assert row.values == {"label": "A", "width_mm": 13.0, "tpi": (6.0, 6.0)}


def test_a_heading_gives_the_unit_of_its_column() -> None:
    (row,) = read_bands("label,width (in),thickness (in)\nA,1/2,0.025\n", inch=False).rows
    assert row.values["width_mm"] == pytest.approx(12.7)
    assert row.values["thickness_mm"] == pytest.approx(0.635)


def test_a_shop_of_inches_keeps_its_sheet_in_inches() -> None:
    (row,) = read_bands("label,width,length\nA,1/2,93 1/2\n", inch=True).rows
    assert row.values["width_mm"] == pytest.approx(12.7)
    assert row.values["length_mm"] == pytest.approx(2374.9)


def test_inches_under_a_bare_heading_are_asked_about() -> None:
    """0.75 and 3/4 are no millimetres that anybody has; with a unit they are taken as told."""
    (told,) = faults("label,width\nA,3/4\n")
    assert told.startswith("width_mm: '3/4' may be inches")
    assert "19" in told
    assert faults('label,width\nA,3/4"\n') == []
    assert faults("label,width (mm)\nA,0.75\n") == []


@pytest.mark.parametrize(
    ("column", "cell", "words"),
    [
        ("width", "wide", "width_mm: 'wide' cannot be read as a length"),
        ("length", "1,785", "either"),
        ("teeth", "many", "accepted: 4 or 4/6"),
        ("steel", "unobtainium", "'unobtainium' is unknown; accepted: carbon_flexback"),
        ("date", "3/12/2025", "2025-12-03 or 2025-03-12"),
        ("date", "30.2.2025", "is no day"),
        ("looks", "lovely", "'lovely' is unknown; accepted: new, keen, fair, tired, spent"),
        ("price", "cheap", "cannot be read as a number"),
    ],
)
def test_a_cell_that_cannot_be_read_is_a_fault_of_its_row(
    column: str, cell: str, words: str
) -> None:
    (told,) = faults(f"label\t{column}\nA\t{cell}\n")
    assert words in told


def test_a_day_that_can_be_only_one_is_that_one() -> None:
    (row,) = read_bands("label,date\nA,25/3/2025\n", inch=False).rows
    assert row.values["since"] == date(2025, 3, 25)


def test_the_columns_may_be_told() -> None:
    (row,) = read_bands("a,b,c\nx,13,9\n", inch=False, columns={"label": 0, "width_mm": 1}).rows
    assert row.values == {"label": "x", "width_mm": 13.0}


@pytest.mark.parametrize(
    ("text", "columns", "path"),
    [
        ("", None, "text"),
        ("  \n;;\n", None, "text"),
        ("label\n" + "A\n" * 2001, None, "text"),
        (",".join("a" * 61) + "\n", None, "text"),
        ("label\nA\n", {"label": 4}, "columns.label"),
        ("label\nA\n", {"colour": 0}, "columns.colour"),
    ],
)
def test_what_is_no_sheet_is_refused(text: str, columns: dict[str, int] | None, path: str) -> None:
    with pytest.raises(InputError) as refused:
        read_bands(text, inch=False, columns=columns)
    assert refused.value.faults[0].path == path


@given(st.text(max_size=300))
def test_no_text_raises_anything_but_our_own_error(text: str) -> None:
    try:
        sheet = read_bands(text, inch=False)
    except InputError:
        return
    assert all(r.line >= 2 for r in sheet.rows)


def test_each_columns_own_name_is_guessed() -> None:
    headings = [c.key for c in band_columns().values()]
    assert guessed(headings) == {key: at for at, key in enumerate(headings)}


def test_words_for_bands_lead_to_rows_of_the_tables_and_to_one_each() -> None:
    for kind, known in (("steel", set(steels())), ("form", set(tooth_forms()))):
        words = [w for w in band_words() if w.kind == kind]
        assert {w.key for w in words} == known
        called = [name for w in words for name in w.called]
        assert len(called) == len(set(called)), kind
