"""Text as a person sees it: signs that show nothing, or turn what is shown, are not in it."""

import unicodedata

LINES = "\n\r\t"
JOINERS = "\u200c\u200d"
"""Some scripts are not written without them: kept, but no two texts differ by them alone."""
UNSEEN = ("Cc", "Cf", "Cs", "Co", "Cn", "Zl", "Zp")
"""Unicode's kinds of signs that nobody sees: controls, marks of direction, of no width, unknown."""


def odd_sign(text: str) -> str | None:
    """The first sign in a text that no keyboard writes, by its number; None in plain text.

    >>> odd_sign("TW-1"), odd_sign("TW\u200b-1"), odd_sign("two\\nlines")
    (None, 'U+200B', None)
    """
    if text.isprintable():
        return None
    for sign in text:
        if sign not in LINES + JOINERS and unicodedata.category(sign) in UNSEEN:
            return f"U+{ord(sign):04X}"
    return None


def visible(text: str) -> str:
    """A text without what nobody sees: two that look alike are alike.

    >>> visible("TW\u200b-1") == "TW-1"
    True
    """
    return "".join(
        s for s in text if s in LINES or s.isprintable() or unicodedata.category(s) not in UNSEEN
    )
