"""What lives teach, against a drawn truth: shops whose logger forgets and mistypes.

Each shop has a true life of its steel and true wear of two materials, drawn from what the model
says it knows beforehand. Ten edges are worn out in them, life by life Weibull. The logger forgets
a fifth of the runs, and one run in fifty is a slip: ten times too long. Held against the drawn
median: what was forgotten is missing from every life, and one shop scatters as ten lives do.
"""

import math
import random
import statistics

from jade_ribbon.core.edge.abrasion import learned_abrasion
from jade_ribbon.core.edge.run_pace import doubt
from jade_ribbon.core.edge.shop_life import LifeRecord, ShopLives
from jade_ribbon.core.mechanics.life import SHAPE
from jade_ribbon.core.mechanics.wear import LIFE_M_CARBON_OAK

SHOPS = 400
LIVES = 10
RUNS_A_LIFE = 12
FORGOTTEN = 0.2
SLIPS = 0.02
LIFE_SPREAD_LN = 0.35
WEAR_SPREAD_LN = 0.35
WITHIN = 0.15
STEEL = "carbon_flexback"
PIECE_MM = 3600.0


def weibull(rng: random.Random, median: float) -> float:
    """One life about a median."""
    return median * float((-math.log(1.0 - rng.random()) / math.log(2.0)) ** (1.0 / SHAPE))


def logged(rng: random.Random, metres: float) -> float:
    """What of a life reaches the record: runs forgotten, slips asked about and left out."""
    kept = 0.0
    for _ in range(RUNS_A_LIFE):
        if rng.random() < FORGOTTEN:
            continue
        slip = 10.0 if rng.random() < SLIPS else 1.0
        asked = doubt(
            feed_m_min=2.0,
            planned_m_min=2.0,
            length_mm=PIECE_MM * slip,
            planned_length_mm=PIECE_MM,
        )
        # A run unlike its job waits to be confirmed; a careless logger never does that.
        kept += 0.0 if asked is not None else metres / RUNS_A_LIFE
    return kept


def one_shop(seed: int) -> tuple[float, float, float, float]:
    """Learned and true median of the steel, and of the first material's wear against the other."""
    rng = random.Random(seed)
    life = LIFE_M_CARBON_OAK * math.exp(rng.gauss(0.0, LIFE_SPREAD_LN))
    wear = [math.exp(rng.gauss(0.0, WEAR_SPREAD_LN)) for _ in range(2)]
    lives: list[tuple[int, float]] = []
    for n in range(LIVES):
        material = n % 2
        lives.append((material, logged(rng, weibull(rng, life / wear[material]))))
    usual = ShopLives([]).of(STEEL, 0).median_m
    inside, others = ([(m, usual) for k, m in lives if k == at] for at in (0, 1))
    told = learned_abrasion(inside, others)
    assert told is not None
    counted = ShopLives(
        LifeRecord(STEEL, 0, m * (told.factor if k == 0 else 1.0), True) for k, m in lives
    )
    # Lives in the second material are counted by the table: the steel's life is as it is there.
    return counted.of(STEEL, 0).median_m, life / wear[1], told.factor, wear[0] / wear[1]


def main() -> None:
    """Print how far what is learned is from the truth, over the shops."""
    shops = [one_shop(seed) for seed in range(SHOPS)]
    off = [learned / true - 1.0 for learned, true, _, _ in shops]
    middle = statistics.median(off)
    size = statistics.median(abs(o) for o in off)
    verdict = "within" if abs(middle) <= WITHIN else "OVER"
    print(
        f"{f'learned median life, {SHOPS} shops of {LIVES} lives':<44} "
        f"off by {100 * middle:+.1f} % in the middle   {verdict} {100 * WITHIN:.0f} %; one shop by "
        f"{100 * size:.1f} % as likely as not"
    )
    wear = [math.log(told / true) for _, _, told, true in shops]
    print(
        f"{'the same: wear by material':<44} off by {100 * statistics.median(wear):+.1f} % in the "
        f"middle, {100 * statistics.median(abs(w) for w in wear):.1f} % as likely as not"
    )


if __name__ == "__main__":
    main()
