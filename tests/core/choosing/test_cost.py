"""What a face is worth."""

import dataclasses

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.bands.facts import (
    band_facts,
)
from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.cost import bite_ceiling_mm, finish_at, finish_place_by_bite
from jade_ribbon.core.job import Job
from tests.support.jobs import K07, with_saw


def test_bite_ceilings_fall_with_the_finish() -> None:
    ceilings = [
        bite_ceiling_mm(f, bite_target_mm=0.03, bite_max_mm=0.2)
        for f in ("rough", "plane", "sand", "show")
    ]
    assert ceilings == [0.2, 0.06, 0.03, pytest.approx(0.018)]


@given(st.floats(0.001, 0.3))
def test_the_face_is_no_finer_than_its_bite(bite: float) -> None:
    finish = finish_at(finish_place_by_bite(bite_mm=bite, bite_target_mm=0.03, bite_max_mm=0.2))
    if finish != "rough":
        assert bite <= bite_ceiling_mm(finish, bite_target_mm=0.03, bite_max_mm=0.2) * 1.001


def test_fine_pitch_and_hard_tips_leave_a_better_face(job: Job) -> None:
    coarse = finish_at(band_facts(K07, job).finish_place)
    tipped = finish_at(
        band_facts(dataclasses.replace(K07, steel="carbide_tipped"), job).finish_place
    )
    fine = finish_at(band_facts(dataclasses.replace(K07, tpi_lo=6.0, tpi_hi=6.0), job).finish_place)
    assert (coarse, tipped, fine) == ("plane", "sand", "sand")


def test_the_lot_s_money_is_paid_by_the_same_hour_as_a_piece(job: Job) -> None:
    """With power feed time costs 30 an hour, not 40, in the piece and in the lot alike."""
    power = with_saw(job, feed="power")
    best = choose(power).best
    assert best is not None and best.lot is not None
    lot, cuts = best.lot, power.cut.cuts
    time = lot.cost.time * cuts
    assert time == pytest.approx(lot.minutes / 60.0 * power.rates.machine_hour)
    changes = lot.forecast.changes_mean
    per_change = best.evaluation.facts.price + power.rates.change_min / 60.0 * power.rates.hour
    assert lot.forecast.money_mean == pytest.approx(time + changes * per_change)
