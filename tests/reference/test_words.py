"""Words that nobody in a shop says, and second words for one thing: none of them is shown."""

from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
PLACES = (
    *sorted((ROOT / "web/src").rglob("*.svelte")),
    *sorted((ROOT / "jade_ribbon/reference/tables").rglob("*.csv")),
    *sorted((ROOT / "jade_ribbon/core").rglob("*.py")),
    *sorted((ROOT / "jade_ribbon/services").rglob("*.py")),
)
NOT_USED = (
    "will not come right",
    "as likely as not",
    "sees it through",
    "Least cost of those left",
    "was aimed at",
    "eight in ten of all that is not sure",
    "Tell of my saw",
    ": it is so",
    "Share of it that reaches",
    "It tips where",
    "To be ordered once",
    "sawn dull nobody can tell",
    "demote: fine",
    "Done, right",
    "Brought to life",
    "eld back by",
    "Give it up",
    ">Leave<",
    ">Take off<",
    ">Take back<",
    ">Bring back",
    "about 1 in 2",
)


@pytest.mark.parametrize("words", NOT_USED)
def test_words_that_are_not_used(words: str) -> None:
    assert [str(p.relative_to(ROOT)) for p in PLACES if words in p.read_text()] == []
