"""Finding anything."""

import pytest

from jade_ribbon.services.rack import bands
from jade_ribbon.services.search.find import search
from jade_ribbon.services.search.help_index import known_entries, known_index
from jade_ribbon.services.undo import undo
from jade_ribbon.store.database import Store
from jade_ribbon.store.models import BandRow


@pytest.mark.parametrize(
    ("typed", "first"),
    [
        ("K-07", "K-07"),
        ("k07", "K-07"),
        ("hook silicon", "K-07"),
        ("larch", "European larch (dry)"),
        ("euopean larch", "European larch (dry)"),
        ("oak green", None),
        ("polythene", "HDPE"),
        ("qwxkv", None),
        ("fuzzy exit", "Fuzzy exit edge"),
    ],
)
def test_search_forgives(store: Store, typed: str, first: str | None) -> None:
    with store.read() as session:
        hits = search(session, typed)
    if first is None:
        assert all(h.noun == "material" for h in hits[:2])
    else:
        assert hits[0].title == first


def test_search_finds_no_deleted_things_and_no_more_than_a_page(store: Store) -> None:
    with store.write() as session:
        bands.delete_band(session, 1)
        assert all(h.noun != "band" for h in search(session, "K-07"))
        assert len(search(session, "a")) <= 20
        assert session.get(BandRow, 1) is not None


@pytest.mark.parametrize(
    ("typed", "noun", "title"),
    [
        ("set up", "page", "Set up"),
        ("backup", "page", "Copies and exports"),
        ("phone", "page", "Network"),
        ("feed per tooth", "term", "Bite"),
        ("buckling", "term", "Twisting aside"),
        ("isolate", "term", "Isolate"),
        ("side guide gap", "house rule", "Side guide gap"),
        ("mount the band", "step", "Mount the band"),
    ],
)
def test_pages_steps_settings_and_terms_are_found(
    store: Store, typed: str, noun: str, title: str
) -> None:
    with store.read() as session:
        hits = search(session, typed)
    assert (noun, title) in [(h.noun, h.title) for h in hits[:4]]
    assert all(h.place.startswith("/") for h in hits if h.noun in ("page", "term", "step"))


def slips(word: str) -> list[str]:
    """A letter left out, and two in the wrong order, near the middle of a word."""
    at = len(word) // 2
    return [word[:at] + word[at + 1 :], word[: at - 1] + word[at] + word[at - 1] + word[at + 1 :]]


def test_a_slip_of_the_keys_still_finds_nine_names_in_ten() -> None:
    """Every page and term of a usable length, each with two slips: among the first five."""
    names = {e.title for e in known_entries() if len(e.title) >= 6}
    tried = [(slip, name) for name in names for slip in slips(name)]
    found = [name in [e.title for _, e in known_index().find(slip)[:5]] for slip, name in tried]
    assert sum(found) >= 0.9 * len(tried), [t for t, ok in zip(tried, found, strict=True) if not ok]


def test_the_index_follows_what_is_changed_and_undone(store: Store) -> None:
    def titles(typed: str) -> list[str]:
        with store.read() as session:
            return [h.title for h in search(session, typed) if h.noun == "band"]

    assert titles("K-07") == ["K-07"]
    with store.write() as session:
        change = bands.delete_band(session, 1)
    assert titles("K-07") == []
    with store.write() as session:
        undo(session, change)
    assert titles("K-07") == ["K-07"]


@pytest.mark.parametrize("typed", ["'", '"', "%", "_", "*", "a OR b", "NEAR(", "-", "\\", "é", "k"])
def test_signs_that_mean_something_to_the_index_are_text(store: Store, typed: str) -> None:
    with store.read() as session:
        assert len(search(session, typed)) <= 20
