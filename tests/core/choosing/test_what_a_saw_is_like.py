"""What is noted of a saw weighs in the choice: vibration, and the speed that it has."""

import dataclasses

import pytest

from jade_ribbon.core.bands.cut_wear import SHAKEN_WEAR
from jade_ribbon.core.bands.speed_choice import overspeed_share
from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.explanation.cautions import cautions_for
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.words import insert_words
from jade_ribbon.reference.tables import materials


def shaking(job: Job) -> Job:
    return dataclasses.replace(job, saw=dataclasses.replace(job.saw, shakes=True))


def test_hard_tips_wear_twice_on_a_saw_that_vibrates_and_others_as_ever(job: Job) -> None:
    for band in job.bands:
        calm, shaken = evaluate(band, job).run, evaluate(band, shaking(job)).run
        if calm is None or shaken is None:
            continue
        hard = band.steel in ("carbide_tipped", "carbide_grit", "diamond_grit")
        ratio = shaken.equivalent_m / calm.equivalent_m
        assert ratio == pytest.approx(SHAKEN_WEAR if hard else 1.0)


def test_it_is_said_where_a_hard_tip_is_chosen_all_the_same(job: Job) -> None:
    tipped = tuple(b for b in job.bands if b.steel == "carbide_tipped")
    only = dataclasses.replace(shaking(job), bands=tipped)
    assert "shakes" in {c.key for c in cautions_for(only, choose(only).best)}
    calm = dataclasses.replace(job, bands=tipped)
    assert "shakes" not in {c.key for c in cautions_for(calm, choose(calm).best)}


def test_brass_alone_of_the_metals_goes_at_the_speed_of_wood(job: Job) -> None:
    brass = materials()["brass_free_cutting"]
    assert overspeed_share(brass) == 3.0
    assert overspeed_share(materials()["mild_steel"]) == 1.0
    assert overspeed_share(materials()["copper"]) == 1.0


@pytest.mark.parametrize(
    ("inserts", "band", "said"),
    [(12.7, 12.7, ""), (None, 25.4, ""), (12.7, 25.4, "for 12.7 mm, this band is 25.4 mm")],
)
def test_the_wrong_set_of_inserts_is_caught(inserts: float | None, band: float, said: str) -> None:
    words = metric(insert_words(inserts, band))
    assert words == "" if not said else said in words
