"""Find anything: jobs, bands, saws, materials."""

import difflib
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.words import Said, metric, quantity, sentence
from jade_ribbon.reference.tables import other_names
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import BandRow, JobRow, SawRow

MOST = 20
CLOSE_ENOUGH = 0.72


@dataclass(frozen=True)
class Hit:
    """One thing found and where it lives."""

    noun: str
    key: str
    title: str
    detail: Said


def _score(query: str, *texts: str) -> float:
    """1 for a leading match, less for inside, less for a near miss in spelling, 0 for none."""
    best = 0.0
    words = query.casefold().split()
    for text in texts:
        folded = text.casefold()
        if folded.startswith(query.casefold()):
            best = max(best, 1.0)
        elif all(w in folded for w in words):
            best = max(best, 0.9)
        else:
            near = [
                max(
                    (difflib.SequenceMatcher(None, w, part).ratio() for part in folded.split()),
                    default=0.0,
                )
                for w in words
            ]
            if near and min(near) >= CLOSE_ENOUGH:
                best = max(best, 0.8 * min(near))
    return best


def search(session: Session, query: str) -> list[Hit]:
    """The best matches for what was typed, best first; tolerant of spelling."""
    if not query.strip():
        return []
    found: list[tuple[float, Hit]] = []
    for job in session.scalars(select(JobRow).where(JobRow.deleted_at.is_(None))):
        name = job.name or f"Job {job.id}"
        detail = f"job {job.id}, {job.operation}, {job.state}"
        found.append((_score(query, name, detail), Hit("job", str(job.id), name, detail)))
    for band in session.scalars(select(BandRow).where(BandRow.deleted_at.is_(None))):
        kind = f"{band.form} {band.steel}, {band.place}".replace("_", " ")
        about = sentence(quantity(band.width_mm, "length"), f" {kind}")
        hit = Hit("band", str(band.id), band.label, about)
        found.append((_score(query, band.label, metric(about)), hit))
    for saw in session.scalars(select(SawRow).where(SawRow.deleted_at.is_(None))):
        found.append((_score(query, saw.name), Hit("saw", str(saw.id), saw.name, saw.orientation)))
    for key, material in material_table(session).items():
        names = other_names()[key].names if key in other_names() else ()
        hit = Hit("material", key, material.name, material.group.replace("_", " "))
        found.append((0.95 * _score(query, material.name, *names), hit))
    ranked = sorted((f for f in found if f[0] > 0), key=lambda f: (-f[0], f[1].title))
    return [hit for _, hit in ranked[:MOST]]
