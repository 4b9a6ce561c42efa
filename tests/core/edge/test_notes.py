"""Damage that a note speaks of."""

import pytest

from jade_ribbon.core.edge.notes import defect_spoken_of


@pytest.mark.parametrize(
    ("note", "kind"),
    [
        ("hairline crack at the third gullet", "crack"),
        ("Cracked?", "crack"),
        ("slight kink near the tag", "kink"),
        ("stepped weld, 0.1 mm", "weld_stepped"),
        ("the weld is a little stepped", "weld_stepped"),
        ("no crack, no kink", ""),
        ("not a single crack", ""),
        ("free of cracks; runs true", ""),
        ("weld flush", ""),
        ("no crack in the weld, but a kink", "kink"),
        ("", ""),
    ],
)
def test_a_note_speaks_of_damage_unless_it_denies_it(note: str, kind: str) -> None:
    assert defect_spoken_of(note) == kind
