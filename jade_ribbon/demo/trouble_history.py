"""The yard's troubles: told at runs that showed something, asked about, mended, closed.

The true cause is drawn from what the signs and the record make likely, answers from the table of
what each check tells of it; a cause that the band's own record would have to show is only drawn
where it does. What mended a band is in its history too.
"""

import dataclasses
import random
from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy.orm import Session

from jade_ribbon.core.faults.acting import acting, check_now
from jade_ribbon.core.faults.diagnosis import COULD_NOT_TELL, infer
from jade_ribbon.core.faults.knowledge import listed
from jade_ribbon.core.faults.orders import Turning, hear
from jade_ribbon.core.simulation.sounds import RATE_HZ, RunningSaw, sound_of
from jade_ribbon.demo.yard import PEOPLE
from jade_ribbon.reference.faults import causes, checks
from jade_ribbon.services.faults.answers import offered_checks
from jade_ribbon.services.faults.ear import mean_pitch_mm
from jade_ribbon.services.faults.inputs import CloseTroubleInput, RemedyInput, TroubleInput
from jade_ribbon.services.faults.trouble_log import ANSWER, STILL, diagnosis_of, told_of
from jade_ribbon.services.faults.troubles import end, mend, take_step, tell_trouble
from jade_ribbon.services.rack.events import add_event
from jade_ribbon.services.rack.inputs import BandEventInput
from jade_ribbon.services.records import get, log_change
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.store.models import BandRow, SawRow, SoundRow, TroubleRow

TOLD_SHARE = 0.7
"""So many runs that showed something became a trouble."""
ELSEWHERE_SHARE = 0.06
ELSEWHERE: Mapping[str, tuple[str, ...]] = {
    "inspect": ("drift", "lean", "taper", "barrel", "waves", "washboard", "fine_marks"),
    "setup": ("hunts", "wheels_differ", "climbs_backward", "gauge_disagrees", "thrust_turns"),
}
"""What is seen at a set-up or on a face, whatever the run showed."""
SECOND_SIGN, UNSURE, BY_ITSELF = 0.5, 0.06, 0.08
MOST_CHECKS = 6
LEAST_CHANCE = 0.02
DULL_FROM, GUMMED_FROM = 0.4, 0.15
OF_THE_BAND: Mapping[str, tuple[str, str]] = {
    "gummed_edge": ("cleaned", "soaked and brushed after a trouble"),
    "weld_proud": ("mended", "weld_stepped"),
}
"""What mending a band leaves in its history."""
NOT_HERE = ("crack", "fatigue", "tooth_missing", "band_twist", "nail_hit", "set_uneven")
"""Causes that would have ended the band, or are in its record already."""


class TroubleHistory:
    """Two years of troubles, each with its path."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.dice = random.Random("troubles of the yard")  # noqa: S311 - sample data

    def _could_be(self, cause: str, band: BandRow | None, dullness: float) -> bool:
        """Whether a band's own record allows a cause."""
        if cause in NOT_HERE:
            return False
        if cause == "dull":
            return dullness > DULL_FROM
        return cause != "gummed_edge" or (band is not None and band.fouling > GUMMED_FROM)

    def _shows(self, cause: str, row: TroubleRow) -> bool:
        """Whether a cause shows any sign of a trouble."""
        known = listed()
        of = known.shows[known.place[cause]]
        return any(of[known.sign_place[sign]] > 0.0 for sign in row.symptoms)

    def _truth(self, row: TroubleRow) -> str | None:
        """By the tables alone: what the yard has learned must not make itself true."""
        found = infer(told_of(self.session, row, []))
        band = self.session.get(BandRow, row.band_id) if row.band_id else None
        dull = float(row.reads.get("dullness", {"value": 0.0})["value"])
        likely = [
            (cause, found.chance(cause))
            for cause in found.knowledge.causes
            if found.chance(cause) > LEAST_CHANCE
            and self._shows(cause, row)
            and self._could_be(cause, band, dull)
        ]
        if not likely:
            return None
        return self.dice.choices([c for c, _ in likely], [m for _, m in likely])[0]

    def _answer(self, check: str, truth: str) -> str:
        if self.dice.random() < UNSURE:
            return COULD_NOT_TELL
        model = listed().check_of[check]
        place = listed().place[truth]
        row = model.chances[place if place in model.speaks else model.causes]
        return self.dice.choices(model.outcomes, list(row))[0]

    def _signs(self, sign: str) -> dict[str, str]:
        """The run's sign, and often one that goes with it."""
        told = {sign: self.dice.choice(("clear", "clear", "slight"))}
        if self.dice.random() < SECOND_SIGN:
            known = listed()
            weights = [
                float((known.shows[:-1, known.sign_place[sign]] * known.shows[:-1, i]).sum())
                for i in range(len(known.signs))
            ]
            other = self.dice.choices(known.signs, weights)[0]
            if other != sign and other not in ("smoke", "sparks") and "snaps" not in other:
                told[other] = "slight"
        return told

    def after_run(self, signs: Sequence[str], given: Mapping[str, Any], at: datetime) -> None:
        """A run that showed a sign may become a trouble, asked about till it is mended; and so
        may what is seen at the set-up or on the face of one that showed none.
        """
        who, mender = self.dice.sample(PEOPLE, 2)
        began = "run"
        sign = next((s for s in signs if s in listed().signs), None)
        if sign is None and self.dice.random() < ELSEWHERE_SHARE:
            began = self.dice.choice(tuple(ELSEWHERE))
            sign = self.dice.choice(ELSEWHERE[began])
        elif self.dice.random() > TOLD_SHARE:
            return
        if sign is None:
            return
        asked = TroubleInput(
            **given,
            began=began,  # type: ignore[arg-type]
            symptoms=self._signs(sign),  # type: ignore[arg-type]
            who=who,
        )
        row = tell_trouble(self.session, asked, at)
        truth = self._truth(row)
        if truth is None or self.dice.random() < BY_ITSELF:
            end(self.session, row, CloseTroubleInput(causes=[]), at + timedelta(minutes=15))
            return
        self._path(row, truth, at, mender)

    def _path(self, row: TroubleRow, truth: str, at: datetime, who: str) -> None:
        """Checks and remedies until it is mended, as the page would have led."""
        when = at
        for _ in range(MOST_CHECKS):
            found = diagnosis_of(self.session, row)
            now = check_now(found, offered_checks(self.session, row, found))
            said = acting(found, now)
            if said.act or now.offer is None:
                when += timedelta(minutes=said.minutes)
                mend(self.session, row, RemedyInput(cause=said.cause, who=who), when)
                if said.cause == truth:
                    break
                self._still(row, when, who)
                continue
            when += timedelta(minutes=checks()[now.offer.check].minutes)
            outcome = self._answer(now.offer.check, truth)
            step = {"kind": ANSWER, "check": now.offer.check, "outcome": outcome, "who": who}
            take_step(self.session, row, step, when)
        if row.state != "watching":
            when += timedelta(minutes=causes()[truth].remedy_minutes)
            mend(self.session, row, RemedyInput(cause=truth, who=who), when)
        self._mended(row, truth, when, who)
        spoiled = round(self.dice.uniform(4, 30)) if self.dice.random() < 0.3 else None
        end(
            self.session,
            row,
            CloseTroubleInput(causes=[truth], spoiled=spoiled, who=who),
            when + timedelta(minutes=20),
        )

    def _still(self, row: TroubleRow, at: datetime, who: str) -> None:
        """The remedy was the wrong one."""
        assert row.remedied_at is not None
        step = {
            "kind": STILL,
            "cause": row.remedy,
            "remedied_at": row.remedied_at.isoformat(),
            "who": who,
        }
        row.state, row.remedy, row.remedied_at, row.remedy_minutes = "open", "", None, None
        take_step(self.session, row, step, at)

    def _mended(self, row: TroubleRow, truth: str, at: datetime, who: str) -> None:
        """What mending leaves in the band's own history."""
        if truth not in OF_THE_BAND or row.band_id is None:
            return
        kind, detail = OF_THE_BAND[truth]
        if kind == "mended":
            stepped = BandEventInput(kind="weld_stepped", detail="found by its tick", who=who)
            add_event(self.session, row.band_id, stepped, at=at - timedelta(minutes=10))
        event = BandEventInput(kind=kind, detail=detail, who=who)  # type: ignore[arg-type]
        add_event(self.session, row.band_id, event, at=at)

    def good_run(self, saw_id: int, band_id: int, at: datetime, who: str) -> None:
        """How a saw sounded while it ran well."""
        saw, band = get(self.session, "saw", saw_id), get(self.session, "band", band_id)
        figures = core_saw(saw)
        speed = saw.speed_set_m_s or figures.drive.speeds_m_s[0]
        pitch = mean_pitch_mm(band)
        wheel = figures.wheel_diameters_mm[0]
        running = RunningSaw(speed, band.length_mm, pitch, wheel)
        turning = Turning(speed, band.length_mm, pitch, tuple(figures.wheel_diameters_mm))
        heard = hear(sound_of("good", running, saw_id), RATE_HZ, turning)
        row = SoundRow(
            saw_id=saw_id,
            band_id=band_id,
            speed_m_s=speed,
            at=at,
            heard=dataclasses.asdict(heard),
            who=who,
        )
        self.session.add(row)
        log_change(self.session, row, "add", None)

    def present(self, saw: SawRow, job_id: int, at: datetime, who: str) -> None:
        """Two troubles that stand today: a tick being asked about, drift mended and watched."""
        given: dict[str, Any] = {"saw_id": saw.id, "band_id": saw.mounted_band_id, "job_id": job_id}
        tick = TroubleInput(
            **given, began="run", symptoms={"tick": "clear", "fine_marks": "slight"}, who=who
        )
        row = tell_trouble(self.session, tick, at)
        step = {"kind": ANSWER, "check": "when_began", "outcome": "change", "who": who}
        take_step(self.session, row, step, at + timedelta(minutes=2))
        led = TroubleInput(**given, began="inspect", symptoms={"drift": "clear"}, who=who)
        drift = tell_trouble(self.session, led, at - timedelta(hours=3))
        off = {"kind": ANSWER, "check": "fence_true", "outcome": "off_drift", "who": who}
        take_step(self.session, drift, off, at - timedelta(hours=2, minutes=50))
        mended = RemedyInput(cause="fence_off_drift", minutes=6, who=who)
        mend(self.session, drift, mended, at - timedelta(hours=2, minutes=40))
