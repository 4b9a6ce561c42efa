"""Damage that a note speaks of, so that it is asked for as damage."""

import re

DEFECT_SPOKEN = {
    "crack": re.compile(r"\bcrack", re.IGNORECASE),
    "kink": re.compile(r"\bkink", re.IGNORECASE),
    "weld_stepped": re.compile(r"\bstep\w*\s+(at\s+the\s+)?weld|\bweld\W+(\w+\W+){0,3}step", re.I),
}
_DENIED = re.compile(r"\b(no|not|without|free of|never)\W+(\w+\W+){0,2}$", re.IGNORECASE)


def defect_spoken_of(note: str) -> str:
    """The damage a note speaks of, '' for none; "no crack" speaks of none.

    >>> defect_spoken_of("small crack in a gullet")
    'crack'
    >>> defect_spoken_of("no crack, no kink")
    ''
    """
    for kind, pattern in DEFECT_SPOKEN.items():
        for found in pattern.finditer(note):
            if not _DENIED.search(note[: found.start()]):
                return kind
    return ""
