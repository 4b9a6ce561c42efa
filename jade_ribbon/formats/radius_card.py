"""The radius card on paper at true size: quarter circles to lay on the work."""

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape

A4_MM = (210.0, 297.0)
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


def shown_on_paper(lines: Sequence[CardLine]) -> list[CardLine]:
    """Radii that fit the sheet, one line for each different tightest radius."""
    most = A4_MM[0] - 2 * MARGIN_MM
    kept: dict[int, CardLine] = {}
    for line in lines:
        if line.tightest_mm > most:
            continue
        key = round(line.tightest_mm)
        if key in kept:
            first = kept[key]
            kept[key] = CardLine(
                f"{first.label}, {line.label}", first.size, first.tightest_mm, first.comfortable_mm
            )
        else:
            kept[key] = line
    return list(kept.values())


def _words(line: CardLine) -> str:
    return f"{line.label} {line.size} R {line.tightest_mm:.0f} ({line.comfortable_mm:.0f})"


def svg(lines: Sequence[CardLine], title: str) -> str:
    """The card as an SVG in true millimetres."""
    width, height = A4_MM
    x0, y0 = MARGIN_MM, 40.0
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}" font-family="sans-serif" fill="{INK}">',
        f'<text x="{x0}" y="16" font-size="6">{escape(title)}</text>',
        f'<text x="{x0}" y="23" font-size="3.4">{NOTE}</text>',
        f'<path d="M{x0} 30h100m0 -2v4M{x0} 28v4" stroke="{INK}" stroke-width=".3" fill="none"/>',
    ]
    for line in shown_on_paper(lines):
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


def pdf(lines: Sequence[CardLine], title: str) -> bytes:
    """The card as a PDF in true millimetres."""
    from fpdf import FPDF

    page = FPDF(unit="mm", format="A4")
    page.set_auto_page_break(False)
    page.add_page()
    x0, y0 = MARGIN_MM, 40.0
    page.set_font("Helvetica", size=16)
    page.text(x0, 16, latin(title))
    page.set_font("Helvetica", size=9)
    page.text(x0, 23, NOTE)
    page.set_line_width(0.3)
    page.line(x0, 30, x0 + 100, 30)
    for tick in (x0, x0 + 100):
        page.line(tick, 28, tick, 32)
    for line in shown_on_paper(lines):
        for radius, dash in ((line.tightest_mm, 0.0), (line.comfortable_mm, 2.0)):
            if radius > A4_MM[0] - 2 * MARGIN_MM:
                continue
            page.set_dash_pattern(dash=dash, gap=1.5 if dash else 0)
            page.arc(x0 - radius, y0 - radius, 2 * radius, 0, 90, clockwise=False)
        page.set_dash_pattern()
        page.set_font("Helvetica", size=8)
        page.text(x0 + 1, y0 + line.tightest_mm - 0.8, latin(_words(line)))
    return bytes(page.output())


def latin(text: str) -> str:
    """What the built-in PDF typeface can write."""
    return text.encode("latin-1", "replace").decode("latin-1")
