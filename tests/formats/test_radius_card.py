"""The radius card at true size."""

import re

import pytest

from jade_ribbon.formats.printed.paper import SIZES_MM
from jade_ribbon.formats.printed.radius_card import MARGIN_MM, CardLine, pdf, shown_on_paper, svg

LINES = [
    CardLine("K-01", "6.35 x 0.64", 14.2, 17.7, "14.2 mm", "17.7 mm"),
    CardLine("K-10", "6.35 x 0.64", 14.3, 17.9, "14.3 mm", "17.9 mm"),
    CardLine("K-05", "19 x 0.81", 100.6, 125.8, "100.6 mm", "125.8 mm"),
    CardLine("M-01", "31.75 x 0.89", 260.0, 325.0, "260.0 mm", "325.0 mm"),
]


def test_only_what_fits_the_sheet_is_drawn_and_equals_share_a_line() -> None:
    kept = shown_on_paper(LINES)
    assert [c.label for c in kept] == ["K-01, K-10", "K-05"]
    assert all(c.tightest_mm <= SIZES_MM["a4"][0] - 2 * MARGIN_MM for c in kept)


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
