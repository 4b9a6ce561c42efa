"""Thirty jobs of our own, each held to what a sawyer would take for it, and why."""

from dataclasses import dataclass
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import Ranked, choose
from jade_ribbon.core.job import Job
from jade_ribbon.formats.job import JobFile

FIXED: dict[str, Any] = {
    "name": "",
    "orientation": "vertical",
    "tyre": "crowned",
    "throat_mm": 390,
    "guides": "rolling",
    "guide_span_base_mm": 70,
    "guide_span_per_height": 1.0,
    "drive_efficiency": 0.8,
    "feed_max_m_min": None,
    "tensioner": "spring",
}


def saw(
    wheel: float,
    lengths: tuple[float, float],
    widths: tuple[float, float],
    thickest: float,
    force: float | None,
    *speeds: float,
    **more: Any,
) -> dict[str, Any]:
    drive = {"kind": "fixed", "speeds_m_s": list(speeds)}
    return {
        **FIXED,
        "wheel_diameters_mm": [wheel, wheel],
        "band_length_mm": list(lengths),
        "band_width_mm": list(widths),
        "band_thickness_max_mm": thickest,
        "wheel_force_max_N": force,
        "height_mm": 300,
        "motor_kW": 1.5,
        "feed": "hand",
        "drive": drive,
        **more,
    }


LYING = {"orientation": "horizontal", "tyre": "none", "guides": "ceramic", "feed": "power"}
SAWS = {
    "bench": saw(
        245, (1790, 1790), (3, 13), 0.65, None, 14.0, height_mm=150, throat_mm=245, motor_kW=0.5
    ),
    "shop": saw(400, (3340, 3380), (3, 25), 0.9, 3200, 7.0, 14.5),
    "big": saw(
        800,
        (5560, 5620),
        (10, 60),
        1.1,
        14000,
        18.0,
        30.0,
        height_mm=500,
        throat_mm=780,
        motor_kW=5.5,
    ),
    "mill": saw(
        550,
        (4200, 4260),
        (32, 38),
        1.1,
        9000,
        26.0,
        orientation="horizontal",
        height_mm=700,
        throat_mm=800,
        motor_kW=15,
        feed="carriage",
        feed_max_m_min=20,
    ),
    "metal": saw(350, (2950, 2970), (27, 27), 0.95, None, 0.6, 1.2, **LYING),
    "bars": saw(400, (3500, 3520), (27, 34), 1.1, 9000, 0.4, 0.6, 1.0, 1.6, motor_kW=2.2, **LYING),
    "wide": saw(
        1500,
        (9400, 9600),
        (90, 260),
        1.7,
        120000,
        35.0,
        orientation="horizontal",
        height_mm=1200,
        throat_mm=1400,
        motor_kW=55,
        feed="carriage",
        feed_max_m_min=60,
        tensioner="air",
        tyre="flat",
    ),
    "slow": saw(400, (3340, 3380), (3, 25), 0.9, 3200, 0.5, 1.0, 3.0, 12.0, motor_kW=1.1),
}


@dataclass(frozen=True)
class Wanted:
    """What a sawyer would take: widths in mm, teeth to the inch on the mean, steels, form; why."""

    saw: str
    cut: tuple[str, str, float, float, str]
    width: tuple[float, float]
    tpi: tuple[float, float]
    why: str
    steels: tuple[str, ...] = ()
    no_form: str = ""
    form: str = ""
    speed: tuple[float, float] = (0.0, 99.0)
    feed_upto: float = 99.0
    more: tuple[tuple[str, Any], ...] = ()


JOBS = [
    Wanted("bench", ("curve", "basswood_dry", 19, 600, "rough"), (3, 5), (10, 18),
           "a tight scroll wants the narrowest with fine teeth", more=(("min_radius_mm", 8),)),
    Wanted("bench", ("resaw", "hard_maple_dry", 100, 300, "plane"), (9, 13), (3, 6),
           "box sides: as wide as the frame tensions, coarse"),
    Wanted("bench", ("curve", "plywood_birch", 18, 900, "sand"), (4, 10), (6, 14),
           "plywood tears under coarse teeth", more=(("min_radius_mm", 50),)),
    Wanted("bench", ("sheet", "acrylic", 6, 300, "sand"), (5, 13), (10, 18),
           "two teeth in 6 mm, and hands near the band", feed_upto=3.0),
    Wanted("bench", ("sheet", "aluminium_6061", 5, 200, "rough"), (5, 13), (10, 18),
           "aluminium goes at wood speed, fine", feed_upto=1.5),
    Wanted("shop", ("resaw", "white_oak_dry", 250, 1200, "plane"), (16, 25.4), (1.3, 3),
           "gullets decide in 250 mm"),
    Wanted("shop", ("veneer", "black_walnut_dry", 150, 900, "sand"), (13, 25.4), (2, 4),
           "leaves off a tipped or fresh coarse band"),
    Wanted("shop", ("circle", "european_beech_dry", 100, 900, "rough"), (9, 16), (2, 4),
           "bowl blanks: coarse, and as wide as turns", more=(("min_radius_mm", 140),)),
    Wanted("shop", ("curve", "hard_maple_dry", 75, 700, "sand"), (5, 10), (3, 6),
           "a leg: narrow enough for 25 mm", more=(("min_radius_mm", 25),)),
    Wanted("shop", ("rip", "scots_pine_dry", 25, 2000, "plane"), (13, 25.4), (3, 6),
           "three teeth in an inch board"),
    Wanted("shop", ("crosscut", "scots_pine_dry", 100, 100, "rough"), (10, 25.4), (3, 6),
           "across the grain, no hook", no_form="hook"),
    Wanted("shop", ("crosscut", "white_oak_dry", 40, 60, "sand"), (10, 25.4), (5, 14),
           "a shoulder wants fine teeth", no_form="hook"),
    Wanted("shop", ("wedge", "white_ash_dry", 60, 250, "plane"), (10, 25.4), (2, 4),
           "along the grain at an angle", more=(("angle_deg", 8),)),
    Wanted("shop", ("sheet", "mdf", 19, 1000, "sand"), (10, 25.4), (3, 14), "glue, and dust"),
    Wanted("shop", ("block", "hdpe", 60, 300, "plane"), (10, 25.4), (2, 6),
           "it melts under fine teeth", feed_upto=3.0),
    Wanted("shop", ("block", "pu_foam_rigid", 200, 600, "rough"), (10, 25.4), (1.3, 4), "foam"),
    Wanted("shop", ("reclaim", "white_oak_dry", 180, 2000, "rough"), (16, 25.4), (1.3, 4),
           "nails: no carbide, slow", steels=("carbon", "bimetal"), speed=(5.0, 10.0)),
    Wanted("big", ("resaw", "white_oak_green", 400, 3000, "rough"), (25, 60), (0.8, 2),
           "wet oak half a metre high"),
    Wanted("big", ("resaw", "european_larch_dry", 300, 4000, "plane"), (25, 60), (1, 2.2), "deep"),
    Wanted("mill", ("mill", "scots_pine_green", 380, 4000, "rough"), (32, 38), (0.8, 1.3),
           "a softwood log, high hook", more=(("log_diameter_mm", 450),)),
    Wanted("mill", ("mill", "dirty_bark_log", 380, 4000, "rough"), (32, 38), (0.8, 1.3),
           "dirt that cannot be washed off: plain carbon", steels=("carbon",),
           more=(("log_diameter_mm", 450),)),
    Wanted("mill", ("mill", "frozen_log", 300, 4000, "rough"), (32, 38), (0.8, 1.3),
           "frozen wood wants a low hook", no_form="mill_high", more=(("log_diameter_mm", 400),)),
    Wanted("metal", ("bar", "mild_steel", 50, 50, "rough"), (27, 27), (4, 8),
           "a two inch round: 5-8 or 4-6", steels=("bimetal",), more=(("round_stock", True),)),
    Wanted("metal", ("tube", "mild_steel", 60, 60, "rough"), (27, 27), (8, 14),
           "3 mm of wall: 8-12 or 10-14", steels=("bimetal",),
           more=(("round_stock", True), ("wall_mm", 3))),
    Wanted("metal", ("tube", "mild_steel", 100, 100, "rough"), (27, 27), (4, 9),
           "6 mm of wall", steels=("bimetal",), more=(("wall_mm", 6),)),
    Wanted("bars", ("bar", "stainless_304", 80, 80, "rough"), (27, 34), (2, 5),
           "stainless: slow, never rubbing", steels=("bimetal", "carbide_tipped"),
           speed=(0.3, 0.75), more=(("round_stock", True),)),
    Wanted("bars", ("bar", "aluminium_6061", 120, 120, "rough"), (27, 34), (1.5, 4),
           "aluminium fills gullets, and stands the fastest", speed=(1.5, 1.7),
           more=(("round_stock", True),)),
    Wanted("bars", ("bar", "tool_steel_annealed", 100, 100, "rough"), (27, 34), (2, 5),
           "tool steel: slow", steels=("bimetal", "carbide_tipped"), speed=(0.3, 0.75),
           more=(("round_stock", True),)),
    Wanted("slow", ("sheet", "mild_steel", 3, 300, "rough"), (5, 20), (14, 24),
           "two teeth in 3 mm", speed=(0.4, 1.1)),
    Wanted("shop", ("block", "pu_foam_flexible", 250, 1200, "rough"), (12, 25.4), (0.1, 99),
           "teeth tear soft foam: a scalloped knife", form="knife_scalloped"),
    Wanted("shop", ("block", "leather_hide", 40, 400, "sand"), (6, 25.4), (0.1, 99),
           "a stack of hides is parted by a straight knife", form="knife_straight"),
    Wanted("shop", ("block", "cork_block", 80, 600, "sand"), (6, 25.4), (0.1, 99),
           "cork: a knife leaves a shut face", form="knife_straight"),
    Wanted("wide", ("mill", "white_oak_green", 600, 4000, "rough"), (150, 250), (0.45, 0.7),
           "the widest the carriage mill takes, two inches a tooth", ("cobalt_tipped",),
           speed=(25, 45)),
    Wanted("slow", ("sheet", "brass_free_cutting", 12, 200, "rough"), (5, 25.4), (6, 14),
           "brass: between steel and wood", speed=(1.0, 12.0)),
]  # fmt: skip


def job_of(wanted: Wanted) -> Job:
    operation, material, height, length, finish = wanted.cut
    cut = {
        "operation": operation,
        "material": material,
        "height_mm": height,
        "length_mm": length,
        "count": 10,
        "finish": finish,
        **dict(wanted.more),
    }
    whole = {"format": "jade-ribbon/job", "version": 1, "saw": SAWS[wanted.saw], "cut": cut}
    return JobFile.model_validate(whole).to_core()


def best_of(wanted: Wanted) -> Ranked:
    best = choose(job_of(wanted)).best
    assert best is not None, wanted.why
    return best


@pytest.mark.parametrize("wanted", JOBS, ids=lambda w: f"{w.saw}-{w.cut[0]}-{w.cut[1]}")
def test_a_sawyer_would_take_it(wanted: Wanted) -> None:
    best = best_of(wanted)
    e, band = best.evaluation, best.evaluation.facts.band
    tpi = 25.4 / e.facts.pitch_mm
    assert wanted.width[0] - 0.2 <= band.width_mm <= wanted.width[1] + 0.2, wanted.why
    assert wanted.tpi[0] - 1e-6 <= tpi <= wanted.tpi[1] + 1e-6, (wanted.why, tpi)
    assert not wanted.steels or e.facts.steel.token in wanted.steels, (wanted.why, band.steel)
    assert band.form != wanted.no_form, wanted.why
    assert not wanted.form or band.form == wanted.form, wanted.why
    assert e.speed is not None and wanted.speed[0] <= e.speed.speed_m_s <= wanted.speed[1]
    assert best.run.feed_m_min <= wanted.feed_upto, wanted.why


def test_steel_on_a_saw_for_wood_is_stopped() -> None:
    bar = Wanted(
        "shop", ("bar", "mild_steel", 20, 20, "rough"), (0, 0), (0, 0), "it burns the band"
    )
    choice = choose(job_of(bar))
    assert choice.best is None and choice.stop is not None
