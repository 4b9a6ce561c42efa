"""The set-up sheet: one page while it can be, its code, and letters its font lacks."""

import dataclasses
import re

import segno

from jade_ribbon.formats.printed.paper import SIZES_MM
from jade_ribbon.formats.printed.setup_sheet import MARGIN_MM, SetupSheet, SheetStep, pdf

STEP = SheetStep(
    title="Tension",
    figure="134 MPa",
    do="Raise it in small steps, turning by hand between them.",
    check="The gauge shows 65 µm.",
    left="stress 133 MPa, Odda",
    done=True,
)
SHEET = SetupSheet(
    title="Shop saw with K-07",
    under="Strakes. Band 19 x 0.81 mm, 2 tpi.",
    figures=[("tension", "134 MPa, 61.3 Hz plucked")],
    steps=[STEP] * 16,
    cautions=["Isolate and lock the saw.", "No gloves near a running band."],
    disclaimer="The saw's manual comes first.",
    address="http://127.0.0.1:8433/#/setup/4",
)


def pages(data: bytes) -> int:
    return len(re.findall(rb"/Type /Page\b(?!s)", data))


def test_sixteen_steps_fit_one_sheet_and_very_many_go_on_to_a_second() -> None:
    data = pdf(SHEET)
    assert data.startswith(b"%PDF") and pages(data) == 1
    many = dataclasses.replace(SHEET, steps=[STEP] * 90)
    assert pages(pdf(many)) > 1


def test_it_is_a4_with_its_margins() -> None:
    box = re.search(rb"/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]", pdf(SHEET))
    assert box is not None
    points = [float(v) for v in box.groups()]
    assert [round(p * 25.4 / 72) for p in points] == [round(v) for v in SIZES_MM["a4"]]
    assert MARGIN_MM >= 10


def test_notes_and_signs_outside_the_font_are_written_as_people_would() -> None:
    odd = dataclasses.replace(
        SHEET,
        title="F♯2 −9 ≥ 3 \u202f mm, don’t – ever",
        steps=[dataclasses.replace(STEP, do="Größe 日本", left="")],
    )
    assert pages(pdf(odd)) == 1


def test_the_code_is_the_address_and_another_address_another_code() -> None:
    matrix = segno.make(SHEET.address, error="m", micro=False).matrix
    dark = sum(bool(module) for row in matrix for module in row)
    plain, other = pdf(SHEET), pdf(dataclasses.replace(SHEET, address="http://elsewhere/#/setup/5"))
    assert plain != other
    assert dark > 200
