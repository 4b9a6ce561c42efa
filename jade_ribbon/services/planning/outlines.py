"""The tightest radius of a dropped drawing, and which bands of the rack turn it."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import band_facts
from jade_ribbon.core.choosing.operating_point import comfort_factor
from jade_ribbon.core.job import Candidate, Cut, Job, Saw
from jade_ribbon.core.mechanics.geometry import min_radius
from jade_ribbon.core.mechanics.outline import Outline
from jade_ribbon.formats.outline import read_outline
from jade_ribbon.formats.sandbox import read_apart
from jade_ribbon.reference.tables import materials
from jade_ribbon.services.planning.inputs import OutlineInput
from jade_ribbon.services.planning.snapshot import Snapshot, read_snapshot
from jade_ribbon.services.rack.edges import candidate
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import rules_for

CARD_MATERIAL = "red_oak_dry"
CARD_HEIGHT_MM = 25.0


@dataclass(frozen=True)
class TurningBand:
    """A band of the rack with the radii it turns, from its own kerf and width. mm."""

    band_id: int
    label: str
    width_mm: float
    thickness_mm: float
    kerf_mm: float
    set_source: str
    tightest_mm: float
    comfortable_mm: float
    edge_dullness: float


@dataclass(frozen=True)
class OutlineAnswer:
    """What a drawing asks of a band."""

    outline: Outline
    turning: list[TurningBand]
    too_wide: int


def probe_job(snapshot: Snapshot, saw: Saw) -> Job:
    """A plain cut in dry hardwood: the radius depends on set and width alone."""
    cut = Cut(
        operation="curve",
        material=materials()[CARD_MATERIAL],
        height_mm=CARD_HEIGHT_MM,
        length_mm=300.0,
        count=1,
    )
    return Job(saw=saw, cut=cut, rules=rules_for(snapshot.shop), rates=snapshot.shop.rates)


def radius_card(session: Session) -> list[TurningBand]:
    """Each band of the rack with its tightest and comfortable radius, tightest first."""
    snapshot = read_snapshot(session)
    if not snapshot.saws:
        return []
    job = probe_job(snapshot, core_saw(snapshot.saws[0]))
    found = []
    for row in snapshot.bands:
        band: Candidate = candidate(row, snapshot.lives, None, None)
        facts = band_facts(band, job)
        tight = min_radius(
            width_mm=band.width_mm, thickness_mm=band.thickness_mm, kerf_mm=facts.kerf_mm
        ).min_radius_mm
        found.append(
            TurningBand(
                band_id=row.id,
                label=row.label,
                width_mm=band.width_mm,
                thickness_mm=band.thickness_mm,
                kerf_mm=facts.kerf_mm,
                set_source=facts.set_source,
                tightest_mm=tight,
                comfortable_mm=tight * comfort_factor(job),
                edge_dullness=band.dullness,
            )
        )
    return sorted(found, key=lambda b: (b.tightest_mm, b.label))


def measure_outline(session: Session, given: OutlineInput) -> OutlineAnswer:
    """Measure a drawing and find the bands that turn it, widest first."""
    outline = read_apart("text", read_outline, given.text.encode(), given.name, given.unit)
    card = radius_card(session)
    if outline.min_radius_mm is None:
        return OutlineAnswer(outline, card, 0)
    turning = [b for b in card if b.tightest_mm <= outline.min_radius_mm]
    turning.sort(key=lambda b: (-b.width_mm, b.label))
    return OutlineAnswer(outline, turning, len(card) - len(turning))
