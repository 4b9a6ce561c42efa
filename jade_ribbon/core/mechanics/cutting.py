"""What one tooth does: bite, energy, power and force of the cut."""

from dataclasses import dataclass

from jade_ribbon.core.quantities.formula_limits import finite, within_limits

PRESSURE_BITE_MM = 0.1


@dataclass(frozen=True)
class Bite:
    bite_mm: float


@dataclass(frozen=True)
class CuttingPower:
    bite_mm: float
    specific_energy_MPa: float
    cutting_power_W: float
    tangential_force_N: float
    feed_force_N: float


@within_limits
def bite(*, feed_m_min: float, speed_m_s: float, pitch_mm: float) -> Bite:
    """Uncut chip per tooth (mm): feed x pitch / speed, all teeth sharing equally.

    Source: Fundamentals of Metal Machining, "Feed per tooth".

    >>> round(bite(feed_m_min=21.949, speed_m_s=10.11, pitch_mm=12.7).bite_mm, 4)
    0.4595
    """
    return Bite(feed_m_min / 60.0 * pitch_mm / speed_m_s)


def gullet_fill(*, bite_mm: float, height_mm: float, gullet_area_mm2: float) -> float:
    """Share of a gullet that the chip of one tooth fills by the time it leaves the work.

    Source: volume of chips over the room; judgement how they pack; docs/model "Gullet fill".

    >>> gullet_fill(bite_mm=0.03, height_mm=200, gullet_area_mm2=30)
    0.2
    """
    return bite_mm * height_mm / gullet_area_mm2


def energy_factor(*, dullness: float, dull_energy_gain: float) -> float:
    """Growth of the specific energy with dullness: 1 sharp, 1 + gain fully dull.

    Source: Kienzle's force law, its exponent by material; docs/model "Cutting pressure".
    """
    return 1.0 + dull_energy_gain * dullness


def feed_ratio(*, dullness: float, feed_ratio_sharp: float, feed_ratio_dull: float) -> float:
    """Feed force over tangential force, from sharp to dull in proportion to dullness.

    Source: Kienzle's force law, its exponent by material; docs/model "Cutting pressure".
    """
    return feed_ratio_sharp + (feed_ratio_dull - feed_ratio_sharp) * dullness


@within_limits
def cutting_power(
    *,
    feed_m_min: float,
    speed_m_s: float,
    pitch_mm: float,
    kerf_mm: float,
    height_mm: float,
    K_ref_MPa: float,
    m: float,
    dullness: float,
    dull_energy_gain: float,
    feed_ratio_sharp: float,
    feed_ratio_dull: float,
) -> CuttingPower:
    """Specific energy K = K_ref (bite/0.1)^-m (1 + g d), power K x kerf x height x feed.

    Energy in MPa, power in W, forces in N. Not to be trusted below the least bite, where
    the tooth rubs. Source: size law of specific cutting pressure, reference table.
    """
    chip = bite(feed_m_min=feed_m_min, speed_m_s=speed_m_s, pitch_mm=pitch_mm).bite_mm
    energy = (
        K_ref_MPa
        * (chip / PRESSURE_BITE_MM) ** -m
        * energy_factor(dullness=dullness, dull_energy_gain=dull_energy_gain)
    )
    power = energy * kerf_mm * height_mm * feed_m_min / 60.0
    tangential = power / speed_m_s
    ratio = feed_ratio(
        dullness=dullness, feed_ratio_sharp=feed_ratio_sharp, feed_ratio_dull=feed_ratio_dull
    )
    finite(cutting_power_W=power)
    return CuttingPower(chip, energy, power, tangential, tangential * ratio)
