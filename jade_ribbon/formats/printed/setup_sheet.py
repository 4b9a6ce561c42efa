"""The set-up card as one printed sheet (PDF), with a code that opens the record on a phone."""

from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.formats.printed.labels import draw_code
from jade_ribbon.formats.printed.paper import FONT, Paper, printable
from jade_ribbon.formats.printed.paper import sheet as blank

MARGIN_MM = 14.0
CODE_MM = 26.0


@dataclass(frozen=True)
class SheetStep:
    """A step as printed: its state, figure and what to do."""

    title: str
    figure: str
    do: str
    check: str
    left: str
    done: bool


@dataclass(frozen=True)
class SetupSheet:
    """Everything on the sheet."""

    title: str
    under: str
    figures: Sequence[tuple[str, str]]
    steps: Sequence[SheetStep]
    cautions: Sequence[str]
    disclaimer: str
    address: str


def pdf(sheet: SetupSheet, paper: Paper = "a4") -> bytes:
    """The sheet on one page; the steps shrink a little before a second page is begun."""
    for size in (9.0, 8.0, 7.2):
        data, pages = _drawn(sheet, size, paper)
        if pages == 1:
            break
    return data


def _drawn(sheet: SetupSheet, size: float, paper: Paper) -> tuple[bytes, int]:
    page = blank(paper, sheet.title)
    page.set_auto_page_break(auto=True, margin=MARGIN_MM)
    page.set_margins(MARGIN_MM, MARGIN_MM, MARGIN_MM)
    page.add_page()
    _code(page, sheet.address)
    _head(page, sheet)
    for step in sheet.steps:
        _step(page, step, size)
    page.ln(1.5)
    page.set_font(FONT, "B", size)
    page.cell(0, 4.5, "Cautions", new_x="LMARGIN", new_y="NEXT")
    page.set_font(FONT, "", size - 1)
    page.multi_cell(0, 3.4, printable(" · ".join(sheet.cautions)), new_x="LMARGIN", new_y="NEXT")
    page.set_font(FONT, "", size - 1)
    page.multi_cell(0, 3.6, printable(sheet.disclaimer), new_x="LMARGIN", new_y="NEXT")
    return bytes(page.output()), page.pages_count


def _code(page, address: str) -> None:  # type: ignore[no-untyped-def]
    """The address as a code in the corner."""
    draw_code(page, address, page.w - MARGIN_MM - CODE_MM, MARGIN_MM - 4, CODE_MM)


def _head(page, sheet: SetupSheet) -> None:  # type: ignore[no-untyped-def]
    wide = page.w - 2 * MARGIN_MM - CODE_MM - 2
    page.set_font(FONT, "B", 15)
    page.multi_cell(wide, 6.5, printable(sheet.title), new_x="LMARGIN", new_y="NEXT")
    page.set_font(FONT, "", 9)
    page.multi_cell(wide, 4.5, printable(sheet.under), new_x="LMARGIN", new_y="NEXT")
    page.ln(1)
    for name, value in sheet.figures:
        page.set_font(FONT, "", 8)
        page.cell(24, 5, printable(name))
        page.set_font(FONT, "B", 10)
        page.cell(wide - 24, 5, printable(value), new_x="LMARGIN", new_y="NEXT")
    page.set_y(max(page.get_y(), MARGIN_MM + CODE_MM - 4) + 1)


def _step(page, step: SheetStep, size: float) -> None:  # type: ignore[no-untyped-def]
    """A box to tick, the title with its figure, what to do, and what was left."""
    line = size * 0.42
    top = page.get_y() + 0.8
    page.set_draw_color(0, 0, 0)
    page.rect(MARGIN_MM, top + 0.3, 3.4, 3.4)
    if step.done:
        page.set_font(FONT, "B", 9)
        page.text(MARGIN_MM + 0.7, top + 3.1, "x")
    page.set_xy(MARGIN_MM + 5.5, top)
    page.set_font(FONT, "B", size)
    figure = f"   {step.figure}" if step.figure else ""
    page.multi_cell(52, line + 0.5, printable(step.title + figure), new_x="RIGHT", new_y="TOP")
    page.set_font(FONT, "", size - 1)
    text = f"{step.do} {step.check}" + (f"  [{step.left}]" if step.left else "")
    page.multi_cell(0, line, printable(text), new_x="LMARGIN", new_y="NEXT")
    page.set_y(max(page.get_y(), top + line + 1.2) + 0.5)
