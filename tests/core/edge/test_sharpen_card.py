"""The card of sharpening a band here."""

import pytest

from jade_ribbon.core.edge.sharpen_card import SharpenCard, sharpen_card
from jade_ribbon.core.job import Candidate
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.reference.tables import steels, tooth_forms


def card(
    way: str, form: str = "skip", steel: str = "carbon_flexback", set_mm: float = 0.3
) -> SharpenCard:
    tpi = None if form.startswith(("knife", "grit_c")) else 3.0
    band = Candidate("K-1", 12.7, 0.64, tpi, tpi, form, steel)
    return sharpen_card(
        band, steels()[steel], tooth_forms()[form], way=way, length_mm=3302.0, set_mm=set_mm
    )


def test_teeth_are_counted_and_the_saw_is_isolated_first() -> None:
    """3302 mm at 25.4/3 mm a tooth: 390 by hand."""
    on_saw = card("on_saw")
    assert on_saw.teeth == 390
    assert [s.key for s in on_saw.steps][:3] == ["look", "isolate", "mark"]
    assert "390 teeth" in metric(on_saw.steps[0].check)
    vice = [s.key for s in card("in_house").steps]
    assert "hold" in vice and "isolate" not in vice


def test_a_knife_has_bevels_and_no_teeth() -> None:
    found = card("in_house", form="knife_straight", set_mm=0.0)
    keys = [s.key for s in found.steps]
    assert "bevel" in keys and not {"face", "set", "sides"} & set(keys) and found.teeth == 0


@pytest.mark.parametrize(
    ("steel", "form", "words"),
    [("carbide_tipped", "hook", "diamond"), ("diamond_grit", "grit_continuous", "not sharpened")],
)
def test_what_no_file_touches_is_refused(steel: str, form: str, words: str) -> None:
    found = card("in_house", form=form, steel=steel)
    assert not found.steps and words in found.refused
