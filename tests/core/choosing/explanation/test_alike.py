"""Where only the choice counts, the best of each kind of band speak for the rest."""

import dataclasses

from hypothesis import given, settings
from hypothesis import strategies as st

from jade_ribbon.core.choosing.choose import LOOKED_AT, choose
from jade_ribbon.core.choosing.explanation.alike import best_of_a_kind
from jade_ribbon.core.job import Candidate
from tests.support.jobs import K07, plain_job

EDGES = st.tuples(st.floats(0.0, 0.5), st.floats(500.0, 3000.0))


def worn(place: int, dullness: float, life_m: float) -> Candidate:
    return dataclasses.replace(
        K07, label=f"W-{place}", band_id=place, dullness=dullness, life_m=life_m, mounted=False
    )


@settings(max_examples=25, deadline=None, derandomize=True)
@given(
    st.lists(
        st.tuples(st.floats(0.0, 0.5), st.floats(500.0, 3000.0)),
        min_size=3,
        max_size=30,
        unique=True,
    )
)
def test_the_choice_is_the_same_among_the_best_as_among_all(
    edges: list[tuple[float, float]],
) -> None:
    job = plain_job()
    bands = tuple(worn(i, d, life) for i, (d, life) in enumerate(edges))
    few = best_of_a_kind(bands)
    assert len(few) <= 6
    of_all = choose(dataclasses.replace(job, bands=bands)).best
    of_few = choose(dataclasses.replace(job, bands=few)).best
    assert of_all is not None and of_few is not None
    assert of_few.total <= of_all.total * 1.03


def test_bands_of_other_kinds_are_all_kept() -> None:
    kinds = tuple(dataclasses.replace(K07, label=str(n), price=float(n)) for n in range(9))
    assert best_of_a_kind(kinds) == kinds


def test_of_very_many_alike_those_that_cost_least_now_are_looked_at() -> None:
    job = plain_job()
    bands = tuple(worn(i, i / 400.0, 2000.0) for i in range(120))
    found = choose(dataclasses.replace(job, bands=bands))
    assert sum(r.lot is not None for r in found.ranked) == LOOKED_AT
    assert len(found.ranked) == 120
    assert found.best is not None and found.best.evaluation.facts.band.label == "W-0"
