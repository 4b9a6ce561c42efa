"""What a choice says of its own sureness."""

import dataclasses

import numpy as np
import pytest
from hypothesis import assume, given, reject, settings
from hypothesis import strategies as st

from jade_ribbon.core.choosing.choose import Choice, choose
from jade_ribbon.core.choosing.lot import lots
from jade_ribbon.core.choosing.uncertainty.chances import (
    Chances,
    at_feed,
    chances,
    chances_best,
    chances_together,
)
from jade_ribbon.core.choosing.uncertainty.monte_carlo import Dice, factors_of
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.reference.tables import materials
from tests.support.jobs import K07, jobs, plain_job, with_cut, with_saw

SURE = Dice(wide=0.0)


def looked_at(job: Job) -> Choice:
    return choose(job, beside=6)


def seen(job: Job, dice: Dice | None = None) -> tuple[Choice, Chances]:
    """The choice of any job with its chances; jobs that have none are passed over."""
    try:
        choice = looked_at(job)
    except InputError:
        reject()
    found = chances(choice, job, dice)
    assume(found is not None)
    assert found is not None
    return choice, found


@settings(max_examples=40, deadline=None, derandomize=True)
@given(jobs())
def test_chances_of_a_group_sum_to_one(job: Job) -> None:
    _, found = seen(job)
    assert sum(b.chance_best for b in found.bands[: found.group]) == pytest.approx(1.0)
    assert all(b.chance_best == 0.0 for b in found.bands[found.group :])


@settings(max_examples=20, deadline=None, derandomize=True)
@given(jobs())
def test_looked_at_beside_another_choice_it_is_as_sure(job: Job) -> None:
    choice, alone = seen(job)
    first, second = chances_together((choice, choice), job)
    assert first is not None and second is not None
    # The second one's bands are others with dice of their own: only what is shared is alike.
    assert first == alone
    assert second.group == alone.group and second.surer is None


@settings(max_examples=40, deadline=None, derandomize=True)
@given(jobs())
def test_without_spread_it_is_the_plain_answer(job: Job) -> None:
    choice, found = seen(job, SURE)
    for ranked, spread in zip(choice.ranked, found.bands, strict=False):
        window = ranked.evaluation.window
        assert window is not None
        assert (spread.cost.low, spread.cost.high) == pytest.approx((ranked.total, ranked.total))
        assert spread.feed.high == pytest.approx(ranked.run.feed_m_min)
        assert spread.ceiling.low == pytest.approx(window.ceiling_m_min)
        assert spread.push_N.low == pytest.approx(ranked.run.cut.feed_force_N)
        assert spread.limits.keys() == window.limits_m_min.keys()
    assert found.close_to is None and found.surer is None


@settings(max_examples=40, deadline=None, derandomize=True)
@given(jobs())
def test_a_feed_safe_nine_times_in_ten_is_under_the_middle_ceiling(job: Job) -> None:
    choice, found = seen(job)
    for ranked, spread in zip(choice.ranked, found.bands, strict=False):
        window = ranked.evaluation.window
        assert window is not None
        assert spread.safe_feed_m_min <= window.ceiling_m_min * 1.02
        assert spread.cost.low <= spread.cost.high and spread.feed.low <= spread.feed.high
        assert 0.0 <= spread.chance_held <= 1.0


def toss_up(job: Job) -> Job:
    """A job whose last group has some bands of much the same cost."""
    return dataclasses.replace(job, rates=dataclasses.replace(job.rates, hour=33.0))


@pytest.mark.parametrize("material", ["european_larch_dry", "white_oak_dry", "mild_steel"])
def test_more_draws_change_a_chance_by_little(job: Job, material: str) -> None:
    cut = with_cut(job, material=material, height_mm=90.0)
    if material == "mild_steel":
        slow = dataclasses.replace(job.saw.drive, speeds_m_s=(0.6, 1.1))
        cut = with_saw(with_cut(cut, operation="bar", height_mm=60.0), drive=slow)
    choice = looked_at(cut)
    few, many = (chances(choice, cut, Dice(n)) for n in (256, 8192))
    assert few is not None and many is not None and many.group > 1
    for a, b in zip(few.bands, many.bands, strict=True):
        assert abs(a.chance_best - b.chance_best) < 0.045
        assert a.cost.low == pytest.approx(b.cost.low, rel=0.12)


@pytest.mark.parametrize("seed", range(1, 9))
def test_another_seed_tells_much_the_same(job: Job, seed: int) -> None:
    choice = looked_at(job)
    one, other = (chances(choice, job, Dice(4096, s)) for s in (seed, seed + 100))
    assert one is not None and other is not None
    for a, b in zip(one.bands, other.bands, strict=True):
        assert abs(a.chance_best - b.chance_best) < 0.045


def test_a_narrower_input_does_not_widen_the_cost(job: Job) -> None:
    """Side share, pressure, a set that was measured, an hour's cost that was given."""
    wide = _width(job)
    known = dataclasses.replace(job.known, side_sd_ln=0.1, pressure_sd_ln=0.03)
    assert _width(dataclasses.replace(job, known=known)) < 0.97 * wide
    assert _width(toss_up(job)) <= wide * 1.02
    alone = dataclasses.replace(job, bands=(K07,))
    measured = dataclasses.replace(K07, set_per_side_mm=0.28)
    assert _width(dataclasses.replace(job, bands=(measured,))) <= _width(alone) * 1.02


def _width(job: Job) -> float:
    found = chances(looked_at(job), job, Dice(2048))
    assert found is not None
    return found.bands[0].cost.high / found.bands[0].cost.low


def test_identical_bands_swapped_change_nothing(job: Job) -> None:
    other = dataclasses.replace(K07, thickness_mm=0.81, steel="carbon_flexback", label="C-1")
    twin = dataclasses.replace(other, label="C-2")

    def told(*bands: Candidate) -> list[tuple[float, float]]:
        at = dataclasses.replace(job, bands=bands)
        found = chances(looked_at(at), at)
        assert found is not None
        return sorted((b.chance_best, b.cost.low) for b in found.bands)

    assert told(K07, other, twin) == told(K07, twin, other)


def test_ties_are_shared_out() -> None:
    even = chances_best(np.array([[1.0, 2.0], [1.0, 3.0]]))
    assert even.tolist() == [0.75, 0.25]


def test_too_close_only_when_the_spreads_overlap(job: Job) -> None:
    """Of two bands alike the one is not the better; a far dearer one is no rival."""
    twin = dataclasses.replace(K07, steel="carbon_flexback", label="C-1")
    close = dataclasses.replace(job, bands=(K07, twin))
    found = chances(looked_at(close), close)
    assert found is not None and found.close_to == 1 and found.settles is not None
    dear = dataclasses.replace(twin, price=900.0)
    far = dataclasses.replace(job, bands=(K07, dear))
    found = chances(looked_at(far), far)
    assert found is not None and found.close_to is None


def test_what_would_make_it_surer_is_worth_its_minutes(job: Job) -> None:
    """An edge nobody is sure of, beside one that is dearer and known."""
    worn = dataclasses.replace(K07, dullness=0.55, dullness_sd=0.3, label="worn", price=30.0)
    fresh = dataclasses.replace(K07, steel="carbon_flexback", label="fresh", band_id=2, price=45.0)
    at = dataclasses.replace(
        with_cut(job, count=200), bands=(worn, fresh), known=dataclasses.replace(job.known)
    )
    found = chances(looked_at(at), at)
    assert found is not None and found.surer is not None
    assert found.surer.gain > 0.0 and found.surer.gain_per_minute > 0.0
    sure = dataclasses.replace(at, bands=(dataclasses.replace(worn, dullness_sd=0.0), fresh))
    calm = chances(looked_at(sure), sure)
    assert calm is not None
    assert calm.surer is None or calm.surer.key != "dullness"


def test_an_unknown_frame_is_drawn_and_told_as_a_guess(job: Job) -> None:
    unknown = with_saw(job, wheel_force_max_N=None)
    found, known = (chances(looked_at(j), j) for j in (unknown, job))
    assert found is not None and known is not None
    assert "frame force" in found.guesses and "frame force" not in known.guesses


def test_a_feed_held_is_told_by_its_chance(job: Job) -> None:
    choice = looked_at(job)
    best = choice.best
    assert best is not None and best.lot is not None and best.evaluation.window is not None
    ceiling = best.evaluation.window.ceiling_m_min
    told = [
        at_feed(best.evaluation, best.lot, job, share * ceiling).chance_held
        for share in (0.2, 0.8, 1.0, 1.6)
    ]
    assert told == sorted(told, reverse=True) and told[0] > 0.95 and told[-1] < 0.3


def test_dice_of_a_figure_do_not_depend_on_the_others(job: Job) -> None:
    e = looked_at(job).ranked[0].evaluation
    oak = with_cut(with_saw(job, wheel_force_max_N=None), material="white_oak_dry")
    one = {f.spread.key: f.draws for f in factors_of([e], job, Dice())}
    other = {f.spread.key: f.draws for f in factors_of([e], oak, Dice())}
    for key in one.keys() & other.keys():
        assert (one[key] == other[key]).all(), key
        assert abs(one[key].mean()) < 1e-9 and one[key].std() == pytest.approx(1.0, abs=0.02)


@settings(deadline=None)
@given(st.integers(1, 80), st.floats(0.0, 0.4))
def test_a_lot_of_one_cut_is_the_cut_and_longer_lots_wear(count: int, dull: float) -> None:
    job = plain_job()
    band = dataclasses.replace(K07, dullness=dull)
    single = with_cut(dataclasses.replace(job, bands=(band,)), count=1)
    lot = choose(single).ranked[0]
    assert lot.lot is not None
    assert lot.lot.minutes * 60.0 == pytest.approx(lot.run.contact.cutting_time_s, rel=0.01)
    assert lot.lot.metres_m == pytest.approx(lot.run.equivalent_m, rel=0.01)
    many = choose(with_cut(single, count=count)).ranked[0].lot
    fresh = dataclasses.replace(single, bands=(dataclasses.replace(band, dullness=0.0),))
    keen = choose(fresh).ranked[0].lot
    assert many is not None and keen is not None
    # No cut of it is quicker than a keen band's: a lot that changes bands has those too.
    assert many.minutes >= keen.minutes * max(count - 1, 1) * (1 - 1e-6)
    assert many.forecast.changes_mean >= lot.lot.forecast.changes_mean - 1e-9


def test_a_large_lot_takes_as_many_bands_as_its_metres(job: Job) -> None:
    big = with_cut(dataclasses.replace(job, bands=(K07,)), count=4000)
    ranked = choose(big).ranked[0]
    assert ranked.lot is not None
    limit = big.rates.dullness_limit(big.cut.finish, big.rules)
    by_metres = ranked.lot.metres_m / (limit * ranked.evaluation.facts.life_m)
    assert ranked.lot.forecast.changes_mean == pytest.approx(by_metres, rel=0.35)
    assert lots([], big) == []


def test_every_material_has_its_spread(job: Job) -> None:
    for key in materials():
        assert materials()[key].kc_uncertainty_pct > 0, key
