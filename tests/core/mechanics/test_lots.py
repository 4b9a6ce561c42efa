"""The forecast of a lot against a plain simulation of it."""

import numpy as np
import pytest

from jade_ribbon.core.mechanics.lots import lot_forecast

TRIALS = 120_000


def simulated(
    *, alpha: float, beta: float, shape: float, used_m: float, limit: float, metres_m: float
) -> tuple[float, float, float]:
    """Bands begun over the metres, by dice: the mean number, the chance of none, of at most one.

    One rate a trial; the band on the saw is still good; each further one lives its own life.
    """
    dice = np.random.default_rng(7)
    served = (used_m / limit) ** shape
    rate = dice.gamma(alpha, 1.0 / (beta + served), TRIALS)
    life = (served + dice.exponential(size=TRIALS) / rate) ** (1.0 / shape)
    left = metres_m - (limit * life - used_m)
    begun = np.zeros(TRIALS)
    while (going := left > 0.0).any():
        begun += going
        fresh = limit * (dice.exponential(size=TRIALS) / rate) ** (1.0 / shape)
        left = np.where(going, left - fresh, left)
    return float(begun.mean()), float((begun == 0).mean()), float((begun <= 1).mean())


@pytest.mark.parametrize(
    ("alpha", "life_m", "shape", "used_share", "limit", "lot_lives"),
    [
        (4.0, 8_000.0, 2.5, 0.3, 0.8, 0.6),
        (7.0, 10_000.0, 3.0, 0.0, 1.0, 2.5),
        (12.0, 5_000.0, 2.0, 0.7, 0.6, 1.2),
        (3.0, 9_000.0, 2.5, 0.1, 0.35, 5.0),
    ],
)
def test_the_forecast_agrees_with_a_plain_simulation_within_two_hundredths(
    alpha: float, life_m: float, shape: float, used_share: float, limit: float, lot_lives: float
) -> None:
    given = {
        "alpha": alpha,
        "beta": alpha * life_m**shape,
        "shape": shape,
        "used_m": used_share * limit * life_m,
        "limit": limit,
        "metres_m": lot_lives * limit * life_m,
    }
    found = lot_forecast(
        **given, cutting_min=200.0, band_price=40.0, change_min=10.0, hour_rate=40.0
    )
    changes, none, one = simulated(**given)
    assert found.changes_mean == pytest.approx(changes, rel=0.02, abs=0.01)
    assert found.chance_none == pytest.approx(none, abs=0.01)
    assert found.chance_at_most_one == pytest.approx(one, abs=0.01)
    # Money by hand from the mean number of changes.
    minutes = 200.0 + 10.0 * found.changes_mean
    assert found.money_mean == pytest.approx(minutes / 60 * 40 + 40 * found.changes_mean)
