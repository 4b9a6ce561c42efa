"""The radius card on paper at true size: quarter circles to lay on the work."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from html import escape

from jade_ribbon.formats.printed.paper import FONT, SIZES_MM, Paper, printable, sheet

MARGIN_MM = 12.0
INK = "#16231f"
NOTE = "True size: print at 100 %, and check the 100 mm line. Solid: tightest; dashed: comfortable."


@dataclass(frozen=True)
class CardLine:
    """One band on the card; radii in mm."""

    label: str
    size: str
    tightest_mm: float
    comfortable_mm: float
    tightest: str
    comfortable: str
    """The radii in the shop's units."""


def shown_on_paper(lines: Sequence[CardLine], paper: Paper = "a4") -> list[CardLine]:
    """Radii that fit the sheet, one line for each different tightest radius."""
    most = SIZES_MM[paper][0] - 2 * MARGIN_MM
    kept: dict[int, CardLine] = {}
    for line in lines:
        if line.tightest_mm > most:
            continue
        key = round(line.tightest_mm)
        if key in kept:
            first = kept[key]
            kept[key] = replace(first, label=f"{first.label}, {line.label}")
        else:
            kept[key] = line
    return list(kept.values())


def _words(line: CardLine) -> str:
    return f"{line.label} {line.size} R {line.tightest} ({line.comfortable})"


def svg(lines: Sequence[CardLine], title: str, paper: Paper = "a4") -> str:
    """The card as an SVG in true millimetres."""
    width, height = SIZES_MM[paper]
    x0, y0 = MARGIN_MM, 40.0
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}" font-family="sans-serif" fill="{INK}">',
        f'<text x="{x0}" y="16" font-size="6">{escape(title)}</text>',
        f'<text x="{x0}" y="23" font-size="3.4">{NOTE}</text>',
        f'<path d="M{x0} 30h100m0 -2v4M{x0} 28v4" stroke="{INK}" stroke-width=".3" fill="none"/>',
    ]
    for line in shown_on_paper(lines, paper):
        for radius, dash in ((line.tightest_mm, ""), (line.comfortable_mm, "2 1.5")):
            if radius > width - 2 * MARGIN_MM:
                continue
            dashed = f' stroke-dasharray="{dash}"' if dash else ""
            parts.append(
                f'<path d="M{x0 + radius:.2f} {y0}A{radius:.2f} {radius:.2f} 0 0 1 '
                f'{x0} {y0 + radius:.2f}" stroke="{INK}" stroke-width=".3" fill="none"{dashed}/>'
            )
        at = line.tightest_mm
        place = f'x="{x0 + 1}" y="{y0 + at - 0.8:.2f}" font-size="2.8"'
        parts.append(f"<text {place}>{escape(_words(line))}</text>")
    return "\n".join([*parts, "</svg>"])


def pdf(lines: Sequence[CardLine], title: str, paper: Paper = "a4") -> bytes:
    """The card as a PDF in true millimetres."""
    page = sheet(paper, title)
    page.set_auto_page_break(False)
    page.add_page()
    x0, y0 = MARGIN_MM, 40.0
    page.set_font(FONT, size=16)
    page.text(x0, 16, printable(title))
    page.set_font(FONT, size=9)
    page.text(x0, 23, NOTE)
    page.set_line_width(0.3)
    page.line(x0, 30, x0 + 100, 30)
    for tick in (x0, x0 + 100):
        page.line(tick, 28, tick, 32)
    for line in shown_on_paper(lines, paper):
        for radius, dash in ((line.tightest_mm, 0.0), (line.comfortable_mm, 2.0)):
            if radius > page.w - 2 * MARGIN_MM:
                continue
            page.set_dash_pattern(dash=dash, gap=1.5 if dash else 0)
            page.arc(x0 - radius, y0 - radius, 2 * radius, 0, 90, clockwise=False)
        page.set_dash_pattern()
        page.set_font(FONT, size=8)
        page.text(x0 + 1, y0 + line.tightest_mm - 0.8, printable(_words(line)))
    return bytes(page.output())
