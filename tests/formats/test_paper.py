"""Paper: sizes, and letters that are embedded, whatever is written."""

import re

import pytest

from jade_ribbon.formats.cut_marks import MarkedSlice, MarkSheet
from jade_ribbon.formats.cut_marks import pdf as marks
from jade_ribbon.formats.paper import SIZES_MM, Paper, printable
from jade_ribbon.formats.radius_card import CardLine
from jade_ribbon.formats.radius_card import pdf as card

PAPERS = pytest.mark.parametrize("paper", ["a4", "letter"])


@pytest.mark.parametrize("text", ["Łódź", "Ærøskøbing", "Château", "Žďár", "12½ × 3", "“yes” – no"])
def test_names_of_people_and_places_are_printed_as_they_are(text: str) -> None:
    assert printable(text) == text


def test_what_the_letters_lack_is_said_otherwise() -> None:
    assert printable("≥ 3 ♯ 5\u202fµm") == "at least  3 # 5 um"
    assert printable("漢") == "?"


def size_of(data: bytes) -> list[float]:
    box = re.search(rb"/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]", data)
    assert box
    return [float(v) * 25.4 / 72 for v in box.groups()]


@PAPERS
def test_every_sheet_is_of_the_paper_asked_for_and_embeds_its_letters(paper: Paper) -> None:
    line = CardLine("Łódź", "13 mm", 40.0, 50.0, "40 mm", "50 mm")
    piece = MarkedSlice(1, 0.0, 14.0, "0 to 14 mm, 14 mm thick", "leaf 1")
    for data in (
        card([line], "Radius card", paper),
        marks(MarkSheet("Łódź", 20.0, (piece,), ("one",)), paper),
    ):
        assert size_of(data) == pytest.approx(SIZES_MM[paper], abs=0.2)
        assert b"/FontFile2" in data
        assert b"/Lang (en)" in data
        assert b"Helvetica" not in data
