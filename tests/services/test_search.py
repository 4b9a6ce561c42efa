"""Finding anything."""

import pytest

from jade_ribbon.services.rack import bands
from jade_ribbon.services.search import search
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
        ("xyzzy", None),
    ],
)
def test_search_forgives(store: Store, typed: str, first: str | None) -> None:
    with store.read() as session:
        hits = search(session, typed)
    if first is None:
        assert all(h.noun == "material" for h in hits)
    else:
        assert hits[0].title == first


def test_search_finds_no_deleted_things_and_no_more_than_a_page(store: Store) -> None:
    with store.write() as session:
        bands.delete_band(session, 1)
        assert all(h.noun != "band" for h in search(session, "K-07"))
        assert len(search(session, "a")) <= 20
        assert session.get(BandRow, 1) is not None
