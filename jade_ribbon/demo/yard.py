"""Tarnwick Slip, an invented boatyard: its saws, bands, people and kinds of work."""

import json
from dataclasses import dataclass
from importlib import resources
from typing import Any

from jade_ribbon.core.job import Finish, Operation

PEOPLE = ("Odda", "Brill", "Senn", "T.W.")


SAWS: dict[str, dict[str, Any]] = json.loads(
    resources.files("jade_ribbon.demo").joinpath("saws.json").read_text(encoding="utf-8")
)
LENGTHS = {"meg": 4590.0, "shop": 3360.0, "tern": 2500.0, "maud": 2910.0, "mill": 4012.0}


@dataclass(frozen=True)
class YardBand:
    """A band bought for a saw; `week` counts from the start of the records."""

    label: str
    saw: str
    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    form: str
    steel: str
    place: str
    week: int = 0
    price: float | None = None
    set_per_side_mm: float | None = None


DOOR, WALL, LOFT, SHED = "rack by the door", "wall pegs", "loft", "mill shed"
BANDS = (
    YardBand("M-01", "meg", 31.75, 0.89, 1.3, 1.3, "hook", "silicon_steel", DOOR),
    YardBand("M-02", "meg", 25.4, 0.89, 2, 2, "hook", "silicon_steel", DOOR),
    YardBand("M-03", "meg", 25.4, 0.89, 3, 3, "hook", "carbon_flexback", DOOR),
    YardBand("M-04", "meg", 12.7, 0.64, 3, 3, "hook", "carbon_flexback", WALL, 20),
    YardBand("M-05", "meg", 25.4, 0.89, 3, 3, "hook", "carbide_tipped", DOOR, 60, 212.0),
    YardBand("M-06", "meg", 27, 0.9, 3, 4, "variable", "bimetal_m42", WALL),
    YardBand("M-07", "meg", 25.4, 0.89, 2, 2, "hook", "silicon_steel", LOFT, 55),
    YardBand("K-01", "shop", 6.35, 0.64, 6, 6, "regular", "carbon_flexback", WALL),
    YardBand("K-02", "shop", 9.5, 0.64, 4, 4, "skip", "carbon_flexback", WALL),
    YardBand("K-03", "shop", 12.7, 0.64, 3, 3, "hook", "carbon_flexback", WALL),
    YardBand("K-04", "shop", 12.7, 0.5, 4, 4, "skip", "carbon_flexback", WALL, 12),
    YardBand("K-05", "shop", 19, 0.81, 3, 3, "hook", "carbon_flexback", DOOR),
    YardBand("K-06", "shop", 12.7, 0.64, 10, 14, "variable", "bimetal_m42", WALL),
    YardBand("K-07", "shop", 19, 0.81, 2, 2, "hook", "silicon_steel", DOOR, 70),
    YardBand("K-08", "shop", 16, 0.5, 3, 3, "hook", "silicon_steel", DOOR, 30),
    YardBand("K-09", "shop", 19, 0.81, 3, 3, "hook", "silicon_steel", LOFT, 0),
    YardBand("K-10", "shop", 4.8, 0.64, 10, 10, "regular", "carbon_flexback", WALL, 40),
    YardBand("K-11", "shop", 16, 0.5, 3, 3, "hook", "carbon_flexback", DOOR, 5),
    YardBand("K-12", "shop", 12.7, 0.64, 6, 10, "variable", "bimetal_m42", WALL, 8),
    YardBand("T-01", "tern", 6.35, 0.36, 6, 6, "regular", "carbon_flexback", WALL),
    YardBand("T-02", "tern", 6.35, 0.36, 10, 10, "regular", "carbon_flexback", WALL),
    YardBand("T-03", "tern", 12.7, 0.36, 4, 4, "skip", "carbon_flexback", WALL),
    YardBand("T-04", "tern", 9.5, 0.36, 4, 4, "skip", "carbon_flexback", WALL, 25),
    YardBand("I-01", "maud", 19, 0.9, 10, 14, "variable", "bimetal_m42", WALL),
    YardBand("I-02", "maud", 19, 0.9, 6, 10, "variable", "bimetal_m42", WALL),
    YardBand("I-03", "maud", 12.7, 0.64, None, None, "grit_continuous", "carbide_grit", WALL, 15),
    YardBand("L-01", "mill", 31.75, 1.07, 1.15, 1.15, "mill_high", "silicon_steel", SHED),
    YardBand("L-02", "mill", 31.75, 1.07, 1.15, 1.15, "mill_mid", "silicon_steel", SHED),
    YardBand("L-03", "mill", 38, 1.07, 1.15, 1.15, "mill_high", "silicon_steel", SHED, 35),
    YardBand("L-04", "mill", 31.75, 1.07, 1.15, 1.15, "mill_low", "silicon_steel", SHED, 50),
    YardBand("L-05", "mill", 31.75, 1.07, 1.15, 1.15, "mill_mid", "silicon_steel", SHED, 62),
)


@dataclass(frozen=True)
class Work:
    """A kind of work the yard does; sizes vary by `spread` from these."""

    name: str
    saw: str
    operation: Operation
    material: str
    height_mm: float
    length_mm: float
    count: int
    finish: Finish
    slice_mm: float | None = None
    min_radius_mm: float | None = None
    wall_mm: float | None = None
    tolerance_mm: float | None = 0.8
    round_stock: bool = False
    share: float = 1.0
    sittings: int = 3


WORK = (
    Work("Planking", "meg", "resaw", "european_larch_dry", 220, 4200, 70, "plane", 22, share=3),
    Work("Strakes", "shop", "resaw", "european_larch_dry", 180, 3600, 36, "plane", 14, share=3),
    Work("Oak frames", "meg", "curve", "white_oak_green", 60, 900, 60, "plane", None, 260, share=2),
    Work("Cedar strips", "shop", "rip", "western_red_cedar_dry", 24, 3800, 160, "plane", share=2),
    Work("Bulkheads", "shop", "sheet", "plywood_birch", 12, 2600, 24, "sand", None, 180),
    Work("Knees", "shop", "curve", "white_oak_dry", 70, 420, 40, "plane", None, 90),
    Work("Bronze straps", "maud", "bar", "phosphor_bronze", 25, 60, 60, "rough", share=1.2),
    Work("Steel keel bolts", "maud", "bar", "mild_steel", 30, 30, 40, "rough", round_stock=True),
    Work("Fenders", "shop", "block", "hdpe", 60, 400, 8, "rough"),
    Work("Sheaves", "maud", "block", "phenolic_laminate", 20, 120, 40, "plane", share=0.7),
    Work("Foam cores", "shop", "block", "eps_xps_foam", 150, 1200, 6, "rough", None, 300),
    Work("Thwart blanks", "tern", "curve", "scots_pine_dry", 45, 700, 6, "sand", None, 120),
    Work("Deck beam", "meg", "reclaim", "reclaimed_nails", 160, 2200, 3, "rough", share=0.5),
    Work("Larch log", "mill", "mill", "scots_pine_green", 320, 4500, 60, "rough", 30, share=2.5),
    Work("Oak log", "mill", "mill", "white_oak_green", 300, 3600, 44, "rough", 55, share=1.5),
    Work("Frozen log", "mill", "mill", "frozen_log", 280, 4000, 8, "rough", 30, share=0.4),
)
