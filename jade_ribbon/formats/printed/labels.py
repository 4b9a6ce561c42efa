"""Labels of bands at true size: tag, what it is, its length, saws it fits, a code of its page."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.formats.printed.paper import FONT, blank_of, printable

if TYPE_CHECKING:
    from fpdf import FPDF

QUIET = 4
"""Light squares around a code, without which no reader finds it."""
PAD_MM = 2.0
LEAST_PT = 6.0


@dataclass(frozen=True)
class LabelKind:
    """A sheet or a roll of labels: mm."""

    key: str
    name: str
    page_mm: tuple[float, float]
    across: int
    down: int
    label_mm: tuple[float, float]
    first_mm: tuple[float, float] = (0.0, 0.0)
    step_mm: tuple[float, float] = (0.0, 0.0)

    @property
    def a_page(self) -> int:
        return self.across * self.down


KINDS: Mapping[str, LabelKind] = {
    kind.key: kind
    for kind in (
        LabelKind("roll-62", "roll, 62 × 29 mm", (62.0, 29.0), 1, 1, (62.0, 29.0)),
        LabelKind("roll-89", "roll, 89 × 36 mm", (89.0, 36.0), 1, 1, (89.0, 36.0)),
        LabelKind(
            "a4-24",
            "A4, 24 of 70 × 37 mm",
            (210.0, 297.0),
            3,
            8,
            (70.0, 37.0),
            (0.0, 0.5),
            (70.0, 37.0),
        ),
        LabelKind(
            "a4-14",
            "A4, 14 of 105 × 42 mm",
            (210.0, 297.0),
            2,
            7,
            (105.0, 42.0),
            (0.0, 1.5),
            (105.0, 42.0),
        ),
        LabelKind(
            "letter-30",
            "Letter, 30 of 2⅝ × 1 in",
            (215.9, 279.4),
            3,
            10,
            (66.675, 25.4),
            (4.7625, 12.7),
            (69.85, 25.4),
        ),
    )
}


@dataclass(frozen=True)
class Label:
    """What stands on a label; `address` is what its code opens."""

    tag: str
    what: str
    length: str
    fits: str
    address: str


def _fitted(page: "FPDF", text: str, width: float, size: float, style: str = "") -> None:
    """The letters made so small that a line fits, down to the least; then cut off."""
    page.set_font(FONT, style, size)
    while size > LEAST_PT and page.get_string_width(text) > width:
        size -= 0.5
        page.set_font(FONT, style, size)


def _cut(page: "FPDF", text: str, width: float) -> str:
    if page.get_string_width(text) <= width:
        return text
    while text and page.get_string_width(text + "…") > width:
        text = text[:-1]
    return text + "…"


def draw_code(page: "FPDF", address: str, x: float, y: float, size: float) -> None:
    """An address as a code of black squares in vector, its quiet border inside the size."""
    import segno

    matrix = segno.make(address, error="m", micro=False).matrix
    module = size / (len(matrix) + 2 * QUIET)
    page.set_fill_color(0, 0, 0)
    for row, line in enumerate(matrix):
        for column, dark in enumerate(line):
            if dark:
                left, top = x + (column + QUIET) * module, y + (row + QUIET) * module
                page.rect(left, top, module, module, style="F")


def _draw(page: "FPDF", label: Label, kind: LabelKind, x: float, y: float) -> None:
    width, height = kind.label_mm
    code = min(height, 0.42 * width)
    draw_code(page, label.address, x, y + (height - code) / 2.0, code)
    left, room = x + code, width - code - PAD_MM
    line = (height - 2.0 * PAD_MM) / 4.0
    for at, (text, size, style) in enumerate(
        (
            (label.tag, 16.0, "B"),
            (label.what, 9.0, ""),
            (label.length, 11.0, "B"),
            (label.fits, 8.0, ""),
        )
    ):
        said = printable(text)
        if not said.strip():
            continue
        _fitted(page, said, room, min(size, line * 2.4), style)
        page.text(left, y + PAD_MM + (at + 0.75) * line, _cut(page, said, room))


def pdf(labels: Sequence[Label], kind_key: str, *, start: int = 1) -> bytes:
    """Labels as pages at true size, from one place of the first sheet on.

    InputError for an unknown kind, or a place that the sheet does not have.
    """
    kind = KINDS.get(kind_key)
    if kind is None:
        raise refuse("kind", f"{kind_key!r} is unknown; accepted: {', '.join(KINDS)}", kind_key)
    if not 1 <= start <= kind.a_page:
        raise refuse("start", f"{start} is out of range; accepted: 1 to {kind.a_page}", start)
    page = blank_of(kind.page_mm, "Labels")
    page.set_auto_page_break(False)
    for n, label in enumerate(labels, start - 1):
        place = n % kind.a_page
        if place == 0 or n == start - 1:
            page.add_page()
        across, down = place % kind.across, place // kind.across
        x = kind.first_mm[0] + across * kind.step_mm[0]
        y = kind.first_mm[1] + down * kind.step_mm[1]
        _draw(page, label, kind, x, y)
    return bytes(page.output())
