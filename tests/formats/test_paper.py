"""Paper: sizes, and letters that are embedded, whatever is written."""

import re
import zlib

import pytest

from jade_ribbon.formats.printed.cut_marks import MarkedSlice, MarkSheet
from jade_ribbon.formats.printed.cut_marks import pdf as marks
from jade_ribbon.formats.printed.paper import SIZES_MM, Paper, printable
from jade_ribbon.formats.printed.radius_card import CardLine
from jade_ribbon.formats.printed.radius_card import pdf as card

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


def drawn(data: bytes) -> bytes:
    """What is drawn on the pages of a sheet."""
    found = b""
    for stream in re.findall(rb"stream\n(.*?)\nendstream", data, re.DOTALL):
        try:
            text = zlib.decompress(stream)
        except zlib.error:
            continue
        if b" Tf" in text:
            found += text
    return found


def test_a_sheet_says_what_is_its_heading_and_what_is_only_drawn() -> None:
    line = CardLine("K-07", "13 mm", 40.0, 50.0, "40 mm", "50 mm")
    data = card([line], "Radius card")
    assert b"/MarkInfo" in data
    assert len(re.findall(rb"/S /H1", data)) == 1
    assert len(re.findall(rb"/S /P", data)) == 2
    page = drawn(data)
    opened = len(re.findall(rb"/(?:H1|P) <</MCID \d+>> BDC", page))
    assert opened == 3
    assert page.count(b"/Artifact BMC") == 5
    """The line of 100 mm with its two ticks, and two arcs."""
    assert page.count(b"EMC") == opened + 5


def test_a_line_that_turns_the_page_is_tagged_on_the_page_it_is_on() -> None:
    lines = tuple(f"line {n}" for n in range(90))
    data = marks(MarkSheet("Long", 20.0, (MarkedSlice(1, 0.0, 14.0, "0 to 14", "leaf 1"),), lines))
    page = drawn(data)
    assert data.count(b"/Type /Page\n") > 1
    assert page.count(b"BDC") + page.count(b"BMC") == page.count(b"EMC")
