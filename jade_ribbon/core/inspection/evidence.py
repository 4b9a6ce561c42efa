"""What a shop's own faces and watts say of figures that the tables know only roughly."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.formula_limits import within_limits

EIGHT_IN_TEN = NormalDist().inv_cdf(0.9)
REFERENCE_BITE_MM = 0.1
"""Cutting pressure is told at this bite."""


@dataclass(frozen=True)
class FaceReading:
    """A face inspected: its barrel, the cut's height, the strand's force, the push (mm, N)."""

    barrel_mm: float
    cut_height_mm: float
    strand_force_N: float
    feed_force_N: float


@dataclass(frozen=True)
class PowerReading:
    """A cut's electrical power, and idling, with what was being cut (W, mm, m/min, m/s)."""

    power_W: float
    idle_W: float
    drive_efficiency: float
    kerf_mm: float
    height_mm: float
    feed_m_min: float
    speed_m_s: float
    pitch_mm: float
    dullness: float


@dataclass(frozen=True)
class SideSharePosterior:
    """Share of the push that goes sideways: middle, eight-in-ten range, spread of its logarithm."""

    share: float
    low_10: float
    high_90: float
    sd_ln: float


@dataclass(frozen=True)
class EnergyPosterior:
    """Cutting pressure at a bite of 0.1 mm (MPa), its spread, and what each reading says alone."""

    K_ref_MPa: float
    sd_ln: float
    observed_K_ref_MPa: tuple[float, ...]


@dataclass(frozen=True)
class _Normal:
    mean: float
    sd: float


def _moved(prior: _Normal, seen: Sequence[_Normal]) -> _Normal:
    """A normal moved by readings, each of its own spread.

    Readings that scatter more than they say are no independent news: they widen the result.
    """
    weight = 1.0 / prior.sd**2 + sum(1.0 / x.sd**2 for x in seen)
    mean = (prior.mean / prior.sd**2 + sum(x.mean / x.sd**2 for x in seen)) / weight
    wide = 1.0
    if len(seen) > 1:
        middle = sum(x.mean for x in seen) / len(seen)
        off = sum(((x.mean - middle) / x.sd) ** 2 for x in seen)
        wide = max(1.0, math.sqrt(off / (len(seen) - 1)))
    return _Normal(mean, wide * weight**-0.5)


PRESSURE_SD_LN = 0.25
"""One cut's watts tell the pressure to a quarter: kerf, edge and the meter are not sure."""
PRESSURE_BY_AMPS_SD_LN = 0.45
"""Its amps tell it to less: a clamp meter knows no power factor."""
FACE_SD_LN = 0.4
"""One face tells the side share to two fifths: a board is no instrument."""


BELIEVED_ALONE = 4.0
"""A face that says more than so many times the usual, or less than its inverse, is doubted."""
BELIEVED_EVER = 20.0
"""Beyond so many times the usual it is no push that bows the band, however often it is read."""
AGREEING = 3
"""So many faces that say it are believed."""


def alone(face: FaceReading) -> float:
    """The share that one face says by itself."""
    strand = abs(face.barrel_mm) * 8.0 * face.strand_force_N
    return strand / (face.cut_height_mm * face.feed_force_N)


def believed(faces: Sequence[FaceReading], usual: float = 1.0) -> list[FaceReading]:
    """The faces that are believed: one far from the usual only where three on its side agree.

    A slip of the caliper, or a feed that was not the one written, must not make a saw straight.
    """
    shares = [alone(face) / usual for face in faces]

    def agreeing(share: float) -> int:
        return sum(_far(s) and (s > 1.0) == (share > 1.0) for s in shares)

    def counts(share: float) -> bool:
        if not 1.0 / BELIEVED_EVER <= share <= BELIEVED_EVER:
            return False
        return not _far(share) or agreeing(share) >= AGREEING

    return [f for f, share in zip(faces, shares, strict=True) if counts(share)]


def teaching(
    *,
    barrel_mm: float,
    se_mm: float,
    cut_height_mm: float,
    strand_force_N: float,
    feed_force_N: float,
    usual_share: float,
) -> FaceReading | None:
    """What a face says of the side share, as a multiple of the usual; None where it says nothing.

    It teaches where a barrel was told, or where the usual share would have made one that would have
    been: that it was not there counts as the least that could be told. Where neither could be told
    from the caliper's own noise, a straight face says nothing.
    """
    pushed = feed_force_N * usual_share
    usual = pushed * cut_height_mm / (8.0 * strand_force_N)
    if max(abs(barrel_mm), usual) < EIGHT_IN_TEN * se_mm:
        return None
    return FaceReading(max(abs(barrel_mm), se_mm), cut_height_mm, strand_force_N, pushed)


def _far(share: float) -> bool:
    return not 1.0 / BELIEVED_ALONE <= share <= BELIEVED_ALONE


def pressure_by_watts(
    table_MPa: float, table_sd_ln: float, seen_MPa: Sequence[tuple[float, bool]]
) -> EnergyPosterior:
    """A table's cutting pressure moved by what this shop's cuts said, each by watts or amps."""
    prior = _Normal(math.log(table_MPa), table_sd_ln)
    told = [
        _Normal(math.log(k), PRESSURE_BY_AMPS_SD_LN if by_amps else PRESSURE_SD_LN)
        for k, by_amps in seen_MPa
    ]
    found = _moved(prior, told)
    return EnergyPosterior(math.exp(found.mean), found.sd, tuple(k for k, _ in seen_MPa))


@within_limits
def side_share_posterior(
    *,
    prior_share: float,
    prior_sd_ln: float,
    observed: Sequence[FaceReading],
    observation_sd_ln: float,
) -> SideSharePosterior:
    """What inspected faces say of the share of the push that goes sideways.

    Each gives share = |barrel| 8 strand / (height push); logarithms are normal, their precisions
    add, and readings that scatter more than they say widen the result. Raises InputError for a
    barrel of 0: a face without any says only that it is small.

    Source: Bayesian Data Analysis, "Normal data with known variance"; docs/model "Straight enough".

    >>> one = FaceReading(barrel_mm=0.2, cut_height_mm=200, strand_force_N=1500, feed_force_N=60)
    >>> round(side_share_posterior(prior_share=0.06, prior_sd_ln=0.7, observed=[one],
    ...     observation_sd_ln=0.4).share, 4)
    0.1487
    """
    faults = [
        Fault(
            f"observed.{i}.barrel_mm", "is 0; accepted: a barrel that was measured, either way", 0
        )
        for i, face in enumerate(observed)
        if face.barrel_mm == 0.0
    ]
    if faults:
        raise InputError(faults)
    seen = [_Normal(math.log(alone(face)), observation_sd_ln) for face in observed]
    found = _moved(_Normal(math.log(prior_share), prior_sd_ln), seen)
    return SideSharePosterior(
        math.exp(found.mean),
        math.exp(found.mean - EIGHT_IN_TEN * found.sd),
        math.exp(found.mean + EIGHT_IN_TEN * found.sd),
        found.sd,
    )


def reference_pressure_MPa(reading: PowerReading, m: float, dull_energy_gain: float) -> float:
    """Cutting pressure at the reference bite, of a keen edge, that a reading says."""
    cut_W = (reading.power_W - reading.idle_W) * reading.drive_efficiency
    pressure = cut_W / (reading.kerf_mm * reading.height_mm * reading.feed_m_min / 60.0)
    bite_mm = reading.feed_m_min / 60.0 * reading.pitch_mm / reading.speed_m_s
    dull = 1.0 + dull_energy_gain * reading.dullness
    return float(pressure * (bite_mm / REFERENCE_BITE_MM) ** m / dull)


@within_limits
def energy_posterior(
    *,
    prior_K_ref_MPa: float,
    prior_sd_ln: float,
    m: float,
    dull_energy_gain: float,
    observed: Sequence[PowerReading],
    observation_sd_ln: float,
) -> EnergyPosterior:
    """What the motor's watts say of a material's cutting pressure in this shop.

    K = (power - idle) efficiency / (kerf height feed), taken to a bite of 0.1 mm by
    (bite/0.1)^m and to a keen edge by 1 + gain dullness; logarithms are normal, as for faces.
    Raises InputError when a cut takes no more power than idling.

    Source: Bayesian Data Analysis, "Normal data with known variance"; docs/model "Power".

    >>> one = PowerReading(power_W=2503, idle_W=227, drive_efficiency=0.8, kerf_mm=0.91,
    ...     height_mm=64, feed_m_min=4.55, speed_m_s=10.9, pitch_mm=8.4667, dullness=0.2)
    >>> round(energy_posterior(prior_K_ref_MPa=74.1, prior_sd_ln=0.2, m=0.35, dull_energy_gain=0.5,
    ...     observed=[one], observation_sd_ln=0.15).K_ref_MPa, 1)
    185.7
    """
    faults = [
        Fault(
            f"observed.{i}.power_W",
            f"{r.power_W:g} is no more than idling; accepted: more than {r.idle_W:g}",
            r.power_W,
        )
        for i, r in enumerate(observed)
        if r.power_W <= r.idle_W
    ]
    if faults:
        raise InputError(faults)
    each = tuple(reference_pressure_MPa(r, m, dull_energy_gain) for r in observed)
    prior = _Normal(math.log(prior_K_ref_MPa), prior_sd_ln)
    found = _moved(prior, [_Normal(math.log(k), observation_sd_ln) for k in each])
    return EnergyPosterior(math.exp(found.mean), found.sd, each)
