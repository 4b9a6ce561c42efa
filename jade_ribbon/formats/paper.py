"""Paper: its size, and the interface's letters embedded in what is printed."""

from collections.abc import Mapping
from functools import lru_cache
from importlib import resources
from typing import TYPE_CHECKING, Literal

if TYPE_CHECKING:
    from fpdf import FPDF

Paper = Literal["a4", "letter"]
SIZES_MM: Mapping[Paper, tuple[float, float]] = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
FONT = "Atkinson"
OTHERWISE = {"≥": "at least ", "≤": "at most ", "♯": "#", "µ": "u", "μ": "u", "π": "pi"}
"""What the letters do not have, and how it is said without."""
SPACES = "\u202f\u2009\u00a0"


@lru_cache(maxsize=1)
def _known() -> frozenset[int]:
    """Letters that the font has."""
    from fontTools.ttLib import TTFont

    with resources.as_file(resources.files("jade_ribbon.formats") / "fonts") as folder:
        return frozenset(TTFont(folder / "regular.ttf").getBestCmap() or {})


def printable(text: str) -> str:
    """A text with what the font lacks said otherwise; a letter it cannot write is a question mark.

    >>> printable("Łódź ≥ 3 µm")
    'Łódź at least  3 um'
    """
    for space in SPACES:
        text = text.replace(space, " ")
    for sign, words in OTHERWISE.items():
        text = text.replace(sign, words)
    return "".join(c if ord(c) in _known() or c == "\n" else "?" for c in text)


def sheet(paper: Paper, title: str) -> "FPDF":
    """A document in millimetres with the interface's letters, its language and title told."""
    from fpdf import FPDF  # heavy: only where a sheet is printed

    page = FPDF(unit="mm", format=SIZES_MM[paper])
    folder = resources.files("jade_ribbon.formats") / "fonts"
    for style, name in (("", "regular"), ("B", "bold")):
        with resources.as_file(folder / f"{name}.ttf") as path:
            page.add_font(FONT, style, path)
    page.set_title(printable(title))
    page.set_lang("en")
    return page
