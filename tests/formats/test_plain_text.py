"""Signs that nobody sees are refused in what is named, and no two names differ by them."""

import pytest

from jade_ribbon.formats.plain_text import odd_sign, visible

ODD = [
    "a\x00b",
    "a\x1bb",
    "\u202eabc",
    "TW\u200b-1",
    "TW\ufeff-1",
    "a\u2066b",
    "\ud800",
    "a\u2028b",
]
PLAIN = ["TW-1", 'Größe 3/8"', "two\nlines\tand tabs", "می\u200cخواهم", "木工", "½ × 3"]


@pytest.mark.parametrize("text", ODD)
def test_an_odd_sign_is_named_and_left_out(text: str) -> None:
    found = odd_sign(text)
    assert found is not None and found.startswith("U+")
    assert odd_sign(visible(text)) is None


@pytest.mark.parametrize("text", PLAIN)
def test_plain_text_is_left_alone(text: str) -> None:
    assert odd_sign(text) is None


def test_two_that_look_alike_are_alike() -> None:
    assert visible("TW\u200d-1") == visible("TW-1")
