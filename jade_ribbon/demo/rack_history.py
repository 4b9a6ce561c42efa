"""What the yard knows of its bands and saws besides its runs: looked over, made, kept up."""

from datetime import datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.reference.care import making_steps
from jade_ribbon.services.rack import events, making
from jade_ribbon.services.rack.inputs import (
    BandEventInput,
    CoilInput,
    LookedOverInput,
    MakingEndInput,
    MakingInput,
    MakingStepInput,
    SharpenedFacts,
)
from jade_ribbon.services.upkeep import care
from jade_ribbon.services.upkeep.inputs import AccessoryInput, UpkeepDoneInput
from jade_ribbon.store.models import BandRow

DONE = (
    ("tyres", 9),
    ("brushes", 28),
    ("guides", 40),
    ("belt", 120),
    ("table_pin", 170),
    ("wax", 20),
    ("extraction", 16),
    ("brake", 12),
)
"""Tasks, and how many days before the present they were done on the resaw."""


class RackHistory:
    """Keeps the yard's own records of bands and saws."""

    def __init__(self, session: Session, saw_ids: dict[str, int], who: str) -> None:
        self.session, self.saw_ids, self.who = session, saw_ids, who

    def fill(self, at: datetime) -> None:
        """All of it, up to the present."""
        self._kept_up(at)
        self._made()
        self._looked_over(at)

    def _kept_up(self, at: datetime) -> None:
        """The resaw's upkeep; extraction on every saw, a debarker at the mill."""
        for key, days in DONE:
            given = UpkeepDoneInput(key=key, who=self.who)
            care.upkeep_done(self.session, self.saw_ids["meg"], given, at=at - timedelta(days=days))
        for saw_id in self.saw_ids.values():
            works = AccessoryInput(key="extraction", state="works")
            care.set_accessory(self.session, saw_id, works)
        debarker = AccessoryInput(key="debarker", state="works")
        care.set_accessory(self.session, self.saw_ids["mill"], debarker)

    def _made(self) -> None:
        """A coil: one weld that broke at the bend, and one under way."""
        coil = CoilInput(
            width_mm=19.0,
            thickness_mm=0.81,
            tpi_lo=3.0,
            tpi_hi=3.0,
            form="hook",
            steel="carbon_flexback",
            left_mm=30_000.0,
            price_per_m=5.2,
            place="under the bench",
        )
        making.add_coil(self.session, coil)
        for label, length, ended in (("H-01", 3360.0, "bend"), ("H-02", 3360.0, "")):
            begun = MakingInput(
                label=label, length_mm=length, procedure="clamp 3, 4 pulses", who=self.who
            )
            (row, *_) = making.begin_making(self.session, 1, begun).making
            for key in making_steps():
                if key == (ended or "anneal"):
                    break
                step = MakingStepInput(key=key, who=self.who)
                making.making_step(self.session, row.id, step)
            if ended:
                failed = MakingEndInput(
                    made=False, failed_at=ended, why="cracked beside the weld", who=self.who
                )
                making.end_making(self.session, row.id, failed)

    def _looked_over(self, at: datetime) -> None:
        """The newest wide band looked over; one sharpened with all that was done to it."""
        newest = self.session.scalars(
            select(BandRow)
            .where(BandRow.state == "rack", BandRow.width_mm >= 19.0, BandRow.tpi_lo.is_not(None))
            .order_by(BandRow.arrived_at.desc(), BandRow.id.desc())
        ).first()
        if newest is None:
            return
        found = LookedOverInput(
            length_mm=newest.length_mm + 1.0,
            width_mm=newest.width_mm,
            thickness_mm=newest.thickness_mm,
            back_bow_mm=0.2,
            weld_right=True,
            direction_right=True,
            tag_right=True,
            who=self.who,
        )
        events.look_over_band(self.session, newest.id, found, newest.arrived_at)
        sharpened = self.session.scalars(
            select(BandRow)
            .where(BandRow.state == "rack", BandRow.sharpenings > 0)
            .order_by(BandRow.last_run_at)
        ).first()
        if sharpened is None:
            return
        how = SharpenedFacts(way="in_house", ground="both", angle_deg=10.0, set_after_mm=0.5)
        given = BandEventInput(
            kind="sharpened",
            value=0.85,
            minutes=30.0,
            cost=1.5,
            sharpened=how,
            who=self.who,
        )
        last = sharpened.last_run_at or at
        events.add_event(self.session, sharpened.id, given, last + timedelta(hours=20))
