"""What a candidate band is in a job: geometry, set, tension columns, price, life."""

from dataclasses import dataclass

from jade_ribbon.core.job import Candidate, Cut, Finish, Job, Rates
from jade_ribbon.core.mechanics.geometry import band_geometry
from jade_ribbon.core.mechanics.wear import (
    METAL_OVERSPEED_EXPONENT,
    METAL_OVERSPEED_EXPONENT_HARD,
    nominal_life_m,
)
from jade_ribbon.core.quantities.constants import MM_PER_INCH
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.reference.tables import Material, Steel, ToothForm, steels, tooth_forms

VARIABLE_GULLET_SHARE = 0.8
"""A variable pitch fills its smallest gullet first: this share of the mean gullet counts."""
LEAST_SET_SHARE_OF_PITCH = 0.022
"""Set a side in wood is never under this share of the pitch, however thin the body."""
KERF_RULE_FACTOR = {"material": 1.0, "generous": 1.15, "slight": 0.85}
LIGHT_TENSION_SHARE = 0.85
ABRASIVE_AT = 40.0
"""From this abrasiveness on, grit edges wear by their life on abrasives."""
FINE_EDGE_LEAST_SHARE = 0.1
"""Grit grinds with many grains, a knife parts: they rub under a tenth of teeth's least bite."""
HARD_TIPS = ("carbide_tipped", "carbide_grit", "diamond_grit")
GRIT_LIFE_ON_ABRASIVES = {"carbide_grit": 40.0, "diamond_grit": 300.0}


@dataclass(frozen=True)
class BandFacts:
    """A candidate with all that follows from the tables. Stresses in MPa, lengths in mm."""

    band: Candidate
    steel: Steel
    form: ToothForm
    pitch_mm: float
    pitch_lo_mm: float
    pitch_hi_mm: float
    gullet_depth_mm: float
    gullet_area_mm2: float
    body_width_mm: float
    body_area_mm2: float
    set_per_side_mm: float
    kerf_mm: float
    set_source: str
    length_mm: float
    stress_low_MPa: float | None
    stress_target_MPa: float | None
    stress_high_MPa: float | None
    price: float
    price_known: bool
    life_m: float
    life_from_shop: bool
    least_bite_share: float
    """Of the material's least bite, under which this edge only rubs."""
    is_grit: bool
    hard_tips: bool
    overspeed_exponent: float
    uts_MPa: float
    fatigue_amp_MPa: float
    basquin_k: float
    finish_place: int
    """Finest class the teeth leave, counted from rough."""

    @property
    def has_teeth(self) -> bool:
        """False for a continuous grit edge or a knife: teeth in the cut have no meaning there."""
        return self.form.nominal_pitch_mm is None


def look_up(band: Candidate) -> tuple[Steel, ToothForm]:
    """Table rows of a band's steel and form; InputError names an unknown key."""
    faults = []
    if band.steel not in steels():
        faults.append(Fault("steel", f"{band.steel!r} is unknown; accepted: {', '.join(steels())}"))
    if band.form not in tooth_forms():
        faults.append(
            Fault("form", f"{band.form!r} is unknown; accepted: {', '.join(tooth_forms())}")
        )
    if faults:
        raise InputError(faults)
    return steels()[band.steel], tooth_forms()[band.form]


def pitches_mm(band: Candidate, form: ToothForm) -> tuple[float, float, float]:
    """Mean, finest and coarsest pitch in mm; nominal for continuous grit.

    The mean is 25.4 over the mean tpi.
    """
    if form.nominal_pitch_mm is not None or band.tpi_lo is None or band.tpi_hi is None:
        nominal = form.nominal_pitch_mm
        if nominal is None:
            raise InputError(
                [Fault("tpi", f"is missing; the {form.key} form needs teeth per inch")]
            )
        return nominal, nominal, nominal
    mean = MM_PER_INCH / ((band.tpi_lo + band.tpi_hi) / 2.0)
    return mean, MM_PER_INCH / band.tpi_hi, MM_PER_INCH / band.tpi_lo


def set_per_side(
    band: Candidate, form: ToothForm, material: Material, kerf_rule: str, pitch_mm: float = 0.0
) -> tuple[float, str]:
    """Set per side (mm) and where it came from: measured wins, grit is its layer."""
    if band.set_per_side_mm is not None:
        return band.set_per_side_mm, "measured"
    if form.layer_per_side_mm is not None:
        return (
            form.layer_per_side_mm,
            "what soft stock gives beside a knife" if form.is_knife else "grit layer",
        )
    raker = material.is_metal and form.set_raker_frac_t is not None
    fraction = form.set_raker_frac_t if raker else form.set_alternate_frac_t
    if fraction is None:
        fraction = form.set_lo_frac_t
    kind = "raker set" if raker else "alternate set"
    chosen = KERF_RULE_FACTOR[kerf_rule] if band.to_buy else 1.0
    side = fraction * band.thickness_mm * chosen
    floor = LEAST_SET_SHARE_OF_PITCH * pitch_mm if material.is_wood else 0.0
    return (side, kind) if side >= floor else (floor, f"{kind}, least for its pitch in wood")


FINISH_ORDER: tuple[Finish, ...] = ("rough", "plane", "sand", "show")
"""From roughest to finest."""
FORM_FINISH: dict[int, Finish] = {1: "rough", 2: "plane", 3: "plane", 4: "sand", 5: "show"}
"""Class that a form's finish mark (1..5) leaves at best, before pitch and tips."""
FINE_PITCH_MM = 4.5
"""Pitches up to this leave one class better."""


def finish_place_of(steel: Steel, form: ToothForm, pitch_mm: float) -> int:
    """Finest class the teeth leave: the form's mark, one better for fine pitch, hard tips."""
    place = FINISH_ORDER.index(FORM_FINISH[form.finish_1_5])
    place += pitch_mm <= FINE_PITCH_MM
    place += steel.token == "carbide_tipped"
    return min(place, len(FINISH_ORDER) - 1)


def gullet_area(form: ToothForm, pitch_mm: float, *, variable: bool) -> float:
    """Chip room of one gullet, mm2; grit has its protrusion only."""
    if form.chip_area_per_pitch_mm is not None:
        return form.chip_area_per_pitch_mm * pitch_mm
    share = VARIABLE_GULLET_SHARE if variable else 1.0
    return share * form.gullet_area_coeff_a * pitch_mm**2


def _price(band: Candidate, steel: Steel, rates: Rates, length_mm: float) -> float:
    """A band's own price, its type's price a metre, or the usual one of its steel and width."""
    if band.price is not None:
        return band.price
    per_m = band.price_per_m
    if per_m is None:
        per_m = price_per_m(steel, band.width_mm, rates)
    return per_m * length_mm / 1000.0


def price_per_m(steel: Steel, width_mm: float, rates: Rates) -> float:
    """Usual price per metre: the steel's relative price x (2 + 0.2 x width in mm)."""
    base = rates.price_per_m_base + rates.price_per_m_per_mm * width_mm
    return rates.price_factor * steel.rel_price_per_m * base


def relative_edge_life(steel: Steel, material: Material) -> float:
    """Edge life against plain carbon in oak, for this kind of material."""
    if steel.is_grit and material.abrasiveness >= ABRASIVE_AT:
        return GRIT_LIFE_ON_ABRASIVES[steel.token]
    metal = steel.rel_edge_life_metal if material.is_metal else None
    return metal if metal is not None else steel.rel_edge_life_wood


def tension_columns(
    steel: Steel, material: Material
) -> tuple[float | None, float | None, float | None]:
    """Low, target and high stress (MPa): metal columns for metals, wood for all else."""
    if material.is_metal:
        return (
            steel.tension_metal_low_MPa,
            steel.tension_metal_target_MPa,
            steel.tension_metal_high_MPa,
        )
    return steel.tension_wood_low_MPa, steel.tension_wood_target_MPa, steel.tension_wood_high_MPa


def body_width_of(band: Candidate) -> float:
    """Width behind the gullets (mm), by form and pitch alone; it carries the tension."""
    _, form = look_up(band)
    mean, _, _ = pitches_mm(band, form)
    depth = form.gullet_depth_frac_pitch * mean if form.nominal_pitch_mm is None else 0.0
    return band.width_mm - depth


def least_bite_share(steel: Steel, form: ToothForm) -> float:
    """Share of the material's least bite under which an edge only rubs."""
    return FINE_EDGE_LEAST_SHARE if steel.is_grit or form.is_knife else 1.0


def band_facts(band: Candidate, job: Job) -> BandFacts:
    """Resolve a candidate against the tables for this job. Raises InputError on bad keys."""
    steel, form = look_up(band)
    return facts_for(band, steel, form, job.cut, job)


def facts_for(band: Candidate, steel: Steel, form: ToothForm, cut: Cut, job: Job) -> BandFacts:
    """As `band_facts`, the table rows given."""
    mean, fine, coarse = pitches_mm(band, form)
    length = band.length_mm if band.length_mm is not None else job.saw.middle_length_mm
    side, source = set_per_side(band, form, cut.material, job.rules.kerf, mean)
    geometry = band_geometry(
        width_mm=band.width_mm,
        thickness_mm=band.thickness_mm,
        tpi=MM_PER_INCH / mean,
        gullet_depth_ratio=form.gullet_depth_frac_pitch if form.nominal_pitch_mm is None else 0.0,
        gullet_area_coefficient=form.gullet_area_coeff_a,
        set_per_side_mm=side,
        length_mm=length,
    )
    low, target, high = tension_columns(steel, cut.material)
    if target is not None and job.rules.tension == "light":
        target = max(target * LIGHT_TENSION_SHARE, low or 0.0)
    if job.stress_MPa is not None and target is not None:
        target = job.stress_MPa
    variable = band.is_variable or form.key == "variable"
    return BandFacts(
        band=band,
        steel=steel,
        form=form,
        pitch_mm=mean,
        pitch_lo_mm=fine,
        pitch_hi_mm=coarse,
        gullet_depth_mm=geometry.gullet_depth_mm,
        gullet_area_mm2=gullet_area(form, mean, variable=variable),
        body_width_mm=geometry.body_width_mm,
        body_area_mm2=geometry.body_area_mm2,
        set_per_side_mm=side,
        kerf_mm=geometry.kerf_mm,
        set_source=source,
        length_mm=length,
        stress_low_MPa=low,
        stress_target_MPa=target,
        stress_high_MPa=high,
        price=_price(band, steel, job.rates, length),
        price_known=band.price is not None or band.price_per_m is not None,
        life_m=band.life_m or nominal_life_m(rel_edge_life=relative_edge_life(steel, cut.material)),
        life_from_shop=band.life_m is not None and not band.to_buy,
        least_bite_share=least_bite_share(steel, form),
        is_grit=steel.is_grit,
        hard_tips=steel.token in HARD_TIPS,
        overspeed_exponent=METAL_OVERSPEED_EXPONENT.get(steel.token, METAL_OVERSPEED_EXPONENT_HARD),
        uts_MPa=steel.uts_MPa,
        fatigue_amp_MPa=steel.fatigue_amp_1e7_MPa,
        basquin_k=steel.basquin_k,
        finish_place=finish_place_of(steel, form, mean),
    )
