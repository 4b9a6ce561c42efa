"""The yard's billets, logs and old beams: what lay on the rack, what was found in it, what is left.

Faces are read with the simulated caliper's own noise, on boards that the simulated saw has cut, so
that the yard's saws have taught what they are.
"""

import json
import random
from datetime import datetime, timedelta
from importlib import resources
from typing import Any

from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import FINISH_ORDER
from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.inspection.roughness import PLACES
from jade_ribbon.core.simulation.senses import SawnBoard, sawn_thickness_mm
from jade_ribbon.services.inspection.faces import add_face, cut_of, push_of, usual_side_share
from jade_ribbon.services.inspection.inputs import FaceInput
from jade_ribbon.services.planning import jobs
from jade_ribbon.services.records import get
from jade_ribbon.services.stock import records, stock_plan
from jade_ribbon.services.stock.inputs import FastenerInput, OpenInput, StockInput
from jade_ribbon.store.models import FastenerRow, JobRow

NINE = [(along, up) for along in (0.0, 0.5, 1.0) for up in (-1.0, 0.0, 1.0)]
CALIPER_SD_MM = 0.03
READ = ("resaw", "mill")
READ_SHARE = 0.16
"""So many of the runs that ask an accuracy were inspected."""
NO_SLICE_MM = 20.0

LOFT, YARD, SHED = "timber loft", "behind the slip", "mill shed"
LARCH, OAK = "european_larch_dry", "white_oak_green"
RACK: list[dict[str, Any]] = json.loads(
    resources.files("jade_ribbon.demo").joinpath("stock.json").read_text(encoding="utf-8")
)
BEAM: dict[str, Any] = {
    "material": "reclaimed_nails",
    "thickness_mm": 140,
    "height_mm": 170,
    "length_mm": 2400,
    "trued": "face_edge",
    "moisture_pct": 13,
    "suspect": "nails",
    "place": SHED,
    "note": "Old deck beam with bronze fastenings.",
}


class StockHistory:
    """The yard's stock and faces while its two years are being replayed."""

    def __init__(self, session: Session, seed: int) -> None:
        self.session = session
        self.dice = random.Random(seed)  # noqa: S311 - sample data
        self.beams = 0
        self.logs = 0

    def _metal(self, stock_id: int, length_mm: float, at: datetime, who: str) -> None:
        for _ in range(self.dice.randint(2, 5)):
            mark = records.add_fastener(
                self.session,
                stock_id,
                FastenerInput(
                    along_mm=float(round(self.dice.uniform(100, length_mm - 100), -1)),
                    face=self.dice.choice(("face", "back")),
                    depth_mm=self.dice.choice((None, 40.0, 60.0, 90.0)),
                    kind=self.dice.choice(("nail", "nail", "screw")),
                    who=who,
                ),
            )
            get(self.session, "fastener", mark.id).at = at

    def beam(self, job: jobs.JobAnswer, at: datetime, who: str) -> int:
        """An old beam for a job, gone over with the detector."""
        self.beams += 1
        given = StockInput(**BEAM | {"label": f"B-{self.beams:02d}", "moisture_at": at})
        kept = records.add_stock(self.session, given, at=at - timedelta(days=3))
        self._metal(kept.id, given.length_mm, at - timedelta(hours=2), who)
        stock_plan.set_job_stock(self.session, job.id, kept.id)
        return kept.id

    def log_for(self, job: jobs.JobAnswer, at: datetime) -> int:
        """A log for a job of the mill."""
        self.logs += 1
        given = StockInput(
            kind="log",
            label=f"M-{self.logs:02d}",
            material=job.material,
            small_end_mm=float(job.height_mm),
            bark_mm=float(self.dice.randint(8, 16)),
            length_mm=float(job.length_mm) + 60.0,
            moisture_pct=float(self.dice.randint(45, 70)),
            moisture_at=at - timedelta(days=1),
            price=float(self.dice.randint(50, 130)),
            place=YARD,
        )
        kept = records.add_stock(self.session, given, at=at - timedelta(days=9))
        stock_plan.set_job_stock(self.session, job.id, kept.id)
        return kept.id

    def sawn_up(self, stock_id: int, struck: int) -> None:
        """A piece is gone; of the metal in it as many were sawn through as were struck."""
        for n, row in enumerate(records.fasteners(self.session, stock_id)):
            row.state = "sawn_through" if n < struck else "dug_out"
        records.use_stock(self.session, stock_id)

    def strikes(self, stock_id: int | None) -> int:
        """How often a sitting at a beam strikes metal."""
        if stock_id is None:
            return 0
        found: list[FastenerRow] = records.fasteners(self.session, stock_id)
        return sum(self.dice.random() < 0.25 for _ in found)

    def inspect(self, job: jobs.JobAnswer, best: Ranked, at: datetime, who: str) -> None:
        """Some of the pieces that ask an accuracy are read, with a caliper's noise."""
        if job.operation not in READ or self.dice.random() > READ_SHARE:
            return
        row: JobRow = get(self.session, "job", job.id)
        cut = cut_of(self.session, row, None)
        board = SawnBoard(
            thickness_mm=job.slice_mm or NO_SLICE_MM,
            height_mm=cut.job.cut.standing_height_mm,
            strand_force_N=cut.band.strand_force_N,
            side_force_N=usual_side_share(cut) * (push_of(cut) or 0.0),
            saw=job.saw_id or 0,
            board=self.dice.randrange(10_000),
        )
        readings = [
            (
                x,
                y,
                round(
                    sawn_thickness_mm(board, along=x, up=y) + self.dice.gauss(0.0, CALIPER_SD_MM), 2
                ),
            )
            for x, y in NINE
        ]
        dull = best.evaluation.facts.band.dullness > 0.6
        place = max(0, FINISH_ORDER.index(best.run.delivered) - dull)
        grade = next(g for g, p in PLACES.items() if p == place)
        given = FaceInput(
            job_id=job.id,
            readings=readings,
            piece=str(self.dice.randint(1, job.count)),
            roughness=grade,
            who=who,
        )
        add_face(self.session, given, at=at)

    def rack(self, at: datetime) -> None:
        """What lies on the rack today, one billet already opened."""
        for n, piece in enumerate(RACK):
            figures: dict[str, Any] = {
                k: float(v) if isinstance(v, int) and not isinstance(v, bool) else v
                for k, v in piece.items()
            }
            if "moisture_pct" in figures:
                figures["moisture_at"] = at - timedelta(days=4 + n)
            records.add_stock(self.session, StockInput(**figures), at=at - timedelta(weeks=20 - n))
        opened = StockInput(
            label="L-30",
            material=LARCH,
            thickness_mm=120.0,
            height_mm=200.0,
            length_mm=3800.0,
            bow_mm=0.5,
            moisture_pct=13.0,
            moisture_at=at - timedelta(days=6),
            trued="face_edge",
            reactive=True,
            price=96.0,
            place=LOFT,
        )
        whole = records.add_stock(self.session, opened, at=at - timedelta(weeks=22))
        records.open_stock(
            self.session,
            whole.id,
            OpenInput(from_face_mm=59.2, kerf_mm=1.6, first_bow_mm=3.0, second_bow_mm=-2.5),
        )
