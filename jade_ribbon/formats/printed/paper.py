"""Paper: its size, and the interface's letters embedded in what is printed."""

import functools
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from functools import lru_cache
from importlib import resources
from typing import TYPE_CHECKING, Any, Literal

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

    with resources.as_file(resources.files("jade_ribbon.formats.printed") / "fonts") as folder:
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


HEADING_PT = 14.0
"""Letters of so many points are a sheet's heading."""


@lru_cache(maxsize=1)
def _tagged() -> type["FPDF"]:
    """The writer of sheets that says which of what it draws is read, and in what order.

    What is read is a heading or a paragraph of the structure tree; lines and boxes are not read.
    """
    from fpdf import FPDF  # heavy: only where a sheet is printed

    class Tagged(FPDF):
        nested = False

        @contextmanager
        def _read(self) -> Iterator[None]:
            """One line of text as an element of the structure."""
            if self.nested:
                yield
                return
            kind = "/H1" if self.font_size_pt >= HEADING_PT else "/P"
            number = self.struct_builder.next_mcid_for_page(self.page)
            self._add_marked_content(struct_type=kind, mcid=number)
            yield from self._between(f"{kind} <</MCID {number}>> BDC")

        @contextmanager
        def _drawn(self) -> Iterator[None]:
            """What is drawn and not read."""
            if self.nested:
                yield
                return
            yield from self._between("/Artifact BMC")

        def _between(self, opens: str) -> Iterator[None]:
            self._out(opens)
            self.nested = True
            yield
            self.nested = False
            self._out("EMC")

        def _render_styled_text_line(  # type: ignore[override]
            self, text_line: Any, h: Any, *given: Any, **more: Any
        ) -> bool:
            draw = super()._render_styled_text_line
            turned = self._perform_page_break_if_need_be(self.font_size if h is None else h)
            if not any(fragment.string.strip() for fragment in text_line.fragments):
                return draw(text_line, h, *given, **more) or turned
            with self._read():
                return draw(text_line, h, *given, **more) or turned

        def text(self, *given: Any, **more: Any) -> None:
            with self._read():
                super().text(*given, **more)

    for name in ("rect", "line", "arc"):
        setattr(Tagged, name, _not_read(getattr(FPDF, name)))
    return Tagged


def _not_read(draw: Any) -> Any:
    """A way to draw whose lines are marked as not to be read."""

    @functools.wraps(draw)
    def drawn(writer: Any, *given: Any, **more: Any) -> None:
        with writer._drawn():
            draw(writer, *given, **more)

    return drawn


def sheet(paper: Paper, title: str) -> "FPDF":
    """A document in millimetres with the interface's letters, tagged for readers."""
    return blank_of(SIZES_MM[paper], title)


def blank_of(size_mm: tuple[float, float], title: str) -> "FPDF":
    """A document of any size in millimetres, else as a sheet."""
    page = _tagged()(unit="mm", format=size_mm)
    folder = resources.files("jade_ribbon.formats.printed") / "fonts"
    for style, name in (("", "regular"), ("B", "bold")):
        with resources.as_file(folder / f"{name}.ttf") as path:
            page.add_font(FONT, style, path)
    page.set_title(printable(title))
    page.set_lang("en")
    return page
