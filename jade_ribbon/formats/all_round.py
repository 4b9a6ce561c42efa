"""The all-round file: jobs of one saw in, the band that does them all for least money out."""

from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Field

from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.money.all_round import AllRound, all_round
from jade_ribbon.formats.job import MAX_BANDS, BandFile, JobFile
from jade_ribbon.formats.recommendation import band_line
from jade_ribbon.formats.validation import Strict, read_json
from jade_ribbon.reference.tables import operations

MOST_JOBS = 40
SHOWN = 20


class NamedJobFile(JobFile):
    """A job file, with a name of the job where it has one."""

    name: Annotated[str, Field(max_length=120)] = ""


class AllRoundFile(Strict):
    """Jobs of one saw; bands to choose among, or the built-in types."""

    format: Literal["jade-ribbon/allround"]
    version: Literal[1]
    jobs: Annotated[list[NamedJobFile], Field(min_length=1, max_length=MOST_JOBS)]
    bands: Annotated[list[BandFile], Field(max_length=MAX_BANDS)] | None = None

    def to_core(self) -> list[tuple[str, Job]]:
        """The named jobs, each with the bands."""
        bands: tuple[Candidate, ...] = (
            catalogue_candidates()
            if self.bands is None
            else tuple(band.to_core() for band in self.bands)
        )
        return [
            (job.name or _called(i, job), replace(job.to_core(), bands=bands))
            for i, job in enumerate(self.jobs)
        ]


def _called(place: int, job: NamedJobFile) -> str:
    """A job without a name by its place and what is cut."""
    return f"{place + 1}: {operations()[job.cut.operation].name} {job.cut.material}"


def run_all_round(text: str | bytes) -> dict[str, Any]:
    """The answer to an all-round file. InputError with every fault."""
    document: AllRoundFile = read_json(AllRoundFile, text)
    return all_round_record(all_round(document.to_core()))


def all_round_record(found: AllRound) -> dict[str, Any]:
    """The answer as plain data (docs/formats)."""
    pair = found.pair
    return {
        "ranked": [
            {
                "band": band_line(one.band),
                "jobs": [
                    {"name": j.name, "cost": j.cost, "possible": j.possible} for j in one.jobs
                ],
                "total": one.total,
                "impossible": one.impossible,
            }
            for one in found.ranked[:SHOWN]
        ],
        "changing": {
            "jobs": [
                {
                    "name": j.name,
                    "band": None if j.band is None else band_line(j.band),
                    "cost": j.cost,
                }
                for j in found.changing.jobs
            ],
            "changes": found.changing.changes,
            "total": found.changing.total,
        },
        "pair": None
        if pair is None
        else {"bands": [band_line(b) for b in pair.bands], "total": pair.total},
    }
