"""Marks for the cuts of a billet on paper at true size, with the list of its slices."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.formats.printed.paper import FONT, SIZES_MM, Paper, printable
from jade_ribbon.formats.printed.paper import sheet as blank
from jade_ribbon.formats.printed.radius_card import MARGIN_MM

NOTE = "True size: print at 100 %, and check the 100 mm line. Lay it along the end, face at 0."
ROW_MM = SIZES_MM["a4"][0] - 2 * MARGIN_MM
"""Of the marks; a thicker billet goes on in the next row."""
STRIP_MM = 14.0
STRIPS_AT_MM = 42.0
STEP_MM = 26.0
LINE_MM = 6.0


@dataclass(frozen=True)
class MarkedSlice:
    """A slice on the sheet: its number, where it lies from the face (mm), what it is."""

    number: int
    from_mm: float
    to_mm: float
    place: str
    words: str
    """Where it lies and what it is, in the shop's units."""


@dataclass(frozen=True)
class MarkSheet:
    """A billet's marks: what it is, how thick, its slices in order."""

    title: str
    thickness_mm: float
    slices: tuple[MarkedSlice, ...]
    lines: tuple[str, ...]


def rows_of(thickness_mm: float) -> list[tuple[float, float]]:
    """The stretches of a thickness that each row of the sheet holds.

    >>> rows_of(60.0)
    [(0.0, 60.0)]
    >>> [round(a) for a, _ in rows_of(400.0)]
    [0, 186, 372]
    """
    rows, at = [], 0.0
    while at < thickness_mm:
        rows.append((at, min(at + ROW_MM, thickness_mm)))
        at += ROW_MM
    return rows


def kerfs(slices: Sequence[MarkedSlice]) -> list[tuple[float, float]]:
    """What lies between the slices: the dust of each cut, from and to, mm."""
    return [(a.to_mm, b.from_mm) for a, b in itertools.pairwise(slices) if b.from_mm > a.to_mm]


def pdf(sheet: MarkSheet, paper: Paper = "a4") -> bytes:
    """The sheet as a PDF in true millimetres."""
    page = blank(paper, sheet.title)
    page.set_auto_page_break(True, margin=MARGIN_MM)
    page.add_page()
    page.set_font(FONT, size=16)
    page.text(MARGIN_MM, 16, printable(sheet.title))
    page.set_font(FONT, size=9)
    page.text(MARGIN_MM, 23, NOTE)
    page.set_line_width(0.3)
    page.line(MARGIN_MM, 30, MARGIN_MM + 100, 30)
    for tick in (MARGIN_MM, MARGIN_MM + 100):
        page.line(tick, 28, tick, 32)
    top = STRIPS_AT_MM
    for start, end in rows_of(sheet.thickness_mm):
        x = MARGIN_MM - start
        page.rect(x + start, top, end - start, STRIP_MM)
        for low, high in kerfs(sheet.slices):
            if high > start and low < end:
                a, b = max(low, start), min(high, end)
                page.set_fill_color(120, 120, 120)
                page.rect(x + a, top - 3, b - a, STRIP_MM + 6, style="F")
        for piece in sheet.slices:
            middle = (piece.from_mm + piece.to_mm) / 2.0
            if start <= middle < end:
                page.set_font(FONT, size=9)
                page.text(x + middle - 1.5, top + STRIP_MM / 2.0 + 1.5, str(piece.number))
        top += STEP_MM
    page.set_y(top + 4)
    page.set_font(FONT, size=11)
    for line in sheet.lines:
        page.multi_cell(0, LINE_MM, printable(line), new_x="LMARGIN", new_y="NEXT")
    for piece in sheet.slices:
        words = f"{piece.number}:  {piece.place},  "
        page.multi_cell(0, LINE_MM, printable(words + piece.words), new_x="LMARGIN", new_y="NEXT")
    return bytes(page.output())
