"""Which rows of a table hold: by the tags that a row asks for."""

from collections.abc import Set


def applies(when: str, tags: Set[str]) -> bool:
    """Whether every tag of a row holds, and none of its "!tag" does.

    >>> applies("mill !metal_saw", {"horizontal", "mill"})
    True
    """
    return all((t[1:] not in tags) if t.startswith("!") else (t in tags) for t in when.split())
