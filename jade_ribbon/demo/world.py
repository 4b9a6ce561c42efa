"""Two years of the boatyard, replayed through the core from a fixed seed.

Every run is computed and logged by the same use cases the application uses, so that wear,
sharpening and retirements are consistent with every figure shown.
"""

import random
from datetime import UTC, datetime, timedelta
from pathlib import Path

from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import Ranked, choose
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.demo.rack_history import RackHistory
from jade_ribbon.demo.set_up_history import SetUpHistory
from jade_ribbon.demo.stock_history import StockHistory
from jade_ribbon.demo.trouble_history import TroubleHistory
from jade_ribbon.demo.yard import BANDS, LENGTHS, PEOPLE, SAWS, WORK, Work
from jade_ribbon.formats.job import RatesFile
from jade_ribbon.reference.tables import steels
from jade_ribbon.services.clock import now
from jade_ribbon.services.clock_set import move_times
from jade_ribbon.services.planning import jobs
from jade_ribbon.services.planning.inputs import JobInput, PlanInput
from jade_ribbon.services.planning.jobs import plan_input
from jade_ribbon.services.planning.snapshot import job_for, rack_candidates, read_snapshot
from jade_ribbon.services.rack import bands, events
from jade_ribbon.services.rack.inputs import BandEventInput, BandInput
from jade_ribbon.services.records import get
from jade_ribbon.services.running import runs
from jade_ribbon.services.running.inputs import RunInput
from jade_ribbon.services.shop import saws, settings
from jade_ribbon.services.shop.inputs import MountInput, SawInput, ShopInput, TensionInput
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate

SEED = 7_019
WEEKS = 104
END = datetime(2026, 11, 20, 15, 0, tzinfo=UTC)
START = END - timedelta(weeks=WEEKS)
JOBS_A_WEEK = (0, 1, 1, 2, 2)
MOST_SHARPENINGS = 3
"""The yard scraps a band after so many: its body has grown narrow."""
SHARPEN_AT = 0.76
GUMMED_AT = 0.45
TURNAROUND = timedelta(days=8)
TROUBLE = ("wander", "drift", "hard_push", "burn", "fuzz", "waves")


class Yard:
    """The boatyard while its two years are being replayed."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.dice = random.Random(SEED)  # noqa: S311 - sample data
        self.saw_ids: dict[str, int] = {}
        self.waiting = list(BANDS)
        self.stock = StockHistory(session, SEED + 1)
        self.troubles = TroubleHistory(session)

    def open(self) -> None:
        """Settings and saws."""
        settings.write_shop(
            self.session,
            ShopInput(
                name="Tarnwick Slip",
                units="metric",
                currency="€",
                gauge_length_mm=100.0,
                rules={},
                rates=RatesFile(),
                people=list(PEOPLE),
            ),
        )
        for key, figures in SAWS.items():
            self.saw_ids[key] = saws.add_saw(self.session, SawInput(**figures)).id

    def buy(self, week: int) -> None:
        """Bands that arrive by this week."""
        for band in [b for b in self.waiting if b.week <= week]:
            self.waiting.remove(band)
            given = BandInput(
                label=band.label,
                width_mm=float(band.width_mm),
                thickness_mm=band.thickness_mm,
                tpi_lo=None if band.tpi_lo is None else float(band.tpi_lo),
                tpi_hi=None if band.tpi_hi is None else float(band.tpi_hi),
                form=band.form,
                steel=band.steel,
                length_mm=LENGTHS[band.saw],
                set_per_side_mm=band.set_per_side_mm,
                price=band.price,
                place=band.place,
            )
            bands.add_band(self.session, given, at=START + timedelta(weeks=band.week))

    def who(self) -> str:
        return self.dice.choice(PEOPLE)

    def job_of(self, work: Work, at: datetime, name: str) -> jobs.JobAnswer:
        """A saved job of a kind of work, its sizes a little different each time."""
        stretch = self.dice.uniform(0.85, 1.15)
        given = JobInput(
            name=name,
            operation=work.operation,
            material=work.material,
            height_mm=round(work.height_mm * self.dice.uniform(0.9, 1.1)),
            length_mm=round(work.length_mm * stretch, -1) or work.length_mm,
            count=max(1, round(work.count * stretch)),
            finish=work.finish,
            slice_mm=work.slice_mm,
            min_radius_mm=work.min_radius_mm,
            wall_mm=work.wall_mm,
            tolerance_mm=work.tolerance_mm,
            round_stock=work.round_stock,
            saw_id=self.saw_ids[work.saw],
        )
        return jobs.add_job(self.session, given, at=at)

    def best_for(self, job: jobs.JobAnswer) -> Ranked | None:
        """What the core chooses from the rack for a job, as it stands."""
        row = get(self.session, "job", job.id)
        saw = get(self.session, "saw", job.saw_id or 0)
        given: PlanInput = plan_input(row, saw.id)
        world = read_snapshot(self.session)
        asked = job_for(world, saw, given, rack_candidates(world, saw.id, given))
        return choose(asked).best

    def put_on(self, saw_id: int, band_id: int, stress_MPa: float, at: datetime) -> None:
        row = get(self.session, "saw", saw_id)
        if row.mounted_band_id != band_id:
            saws.mount(self.session, saw_id, MountInput(band_id=band_id, who=self.who()), at=at)
        state = TensionInput(state="on", stress_MPa=round(stress_MPa, 1))
        saws.set_tension(self.session, saw_id, state, at=at)

    def cut(self, work: Work, job: jobs.JobAnswer, at: datetime) -> None:
        """A job in a few sittings, each with the band the core would choose then."""
        left, struck, stock_id = job.count, 0, None
        if work.operation == "reclaim":
            stock_id = self.stock.beam(job, at, self.who())
        elif work.operation == "mill":
            stock_id = self.stock.log_for(job, at)
        for sitting in range(work.sittings):
            best = self.best_for(job)
            if best is None or left <= 0:
                break
            band = best.evaluation.facts.band
            assert band.band_id is not None and job.saw_id is not None
            when = at + timedelta(hours=3 * sitting)
            self.put_on(job.saw_id, band.band_id, best.evaluation.stress_MPa, when)
            pieces = left if sitting == work.sittings - 1 else max(1, left // 2)
            get(self.session, "job", job.id).band_id = band.band_id
            hits = self.stock.strikes(stock_id)
            struck += hits
            self.log(job, best, pieces, when + timedelta(minutes=40), strikes=hits)
            self.stock.inspect(job, best, when + timedelta(minutes=50), self.who())
            left -= pieces
            self.tend(band.band_id, when + timedelta(hours=2))
        if stock_id is not None:
            self.stock.sawn_up(stock_id, struck)
        jobs.set_job_state(self.session, job.id, "done")

    def log(
        self, job: jobs.JobAnswer, best: Ranked, pieces: int, at: datetime, *, strikes: int = 0
    ) -> None:
        """One run at about the recommended feed, with the trouble a dull edge brings."""
        band = best.evaluation.facts.band
        pace = self.dice.gauss(0.94, 0.07)
        feed = max(best.run.feed_m_min * min(max(pace, 0.75), 1.1), 0.002)
        risk = 0.04 + 0.5 * max(0.0, band.dullness - 0.45) + 0.25 * band.fouling
        symptoms = [self.dice.choice(TROUBLE)] if self.dice.random() < risk else []
        length = job.length_mm
        runs.log_run(
            self.session,
            RunInput(
                client_key=f"sample-{self.dice.getrandbits(60):015x}",
                job_id=job.id,
                saw_id=job.saw_id or 0,
                band_id=band.band_id or 0,
                pieces=pieces,
                length_mm=length,
                feed_m_min=round(feed, 4),
                time_s=round(length * pieces / 1000 / feed * 60 * 1.08, 1),
                speed_m_s=best.evaluation.speed.speed_m_s if best.evaluation.speed else None,
                symptoms=symptoms,  # type: ignore[arg-type]
                strikes=strikes,
                preflight=["hands", "extraction", "support", "isolator"],
                who=self.who(),
            ),
            at=at,
        )
        about = {"job_id": job.id, "saw_id": job.saw_id or 0, "band_id": band.band_id or 0}
        self.troubles.after_run(symptoms, about, at + timedelta(minutes=5))

    def tend(self, band_id: int, at: datetime) -> None:
        """Cleaning, sharpening and scrapping as the record asks."""
        band = bands.one_band(self.session, band_id)
        if band.fouling > GUMMED_AT:
            self.event(band_id, at, "cleaned", "citrus cleaner and a brass brush")
        if band.dullness < SHARPEN_AT:
            return
        saw_id = band.mounted_saw_id
        if saw_id is not None:
            saws.mount(self.session, saw_id, MountInput(band_id=None), at=at)
        most = min(steels()[band.steel].resharpen_times, MOST_SHARPENINGS)
        spent = band.sharpenings >= most
        narrow = band.width_mm < 12 or (band.tpi_lo or 99) > 6
        if spent or narrow or band.bending_share > 0.9:
            crack = band.bending_share > 0.5 and self.dice.random() < 0.5
            self.event(band_id, at, "scrapped", "crack" if crack else "worn")
            self.replace_band(band, at + timedelta(days=6))
        else:
            self.event(band_id, at, "sent_out", "to be sharpened")
            self.event(
                band_id,
                at + TURNAROUND,
                "sharpened",
                "reground and reset",
                value=round(min(band.dullness, 2.0), 2),
            )

    def replace_band(self, old: bands.BandAnswer, at: datetime) -> None:
        """The same type again under the next letter: K-03, K-03b, K-03c."""
        stem = old.label.rstrip("bcdefgh")
        tail = old.label[len(stem) :]
        label = stem + (chr(ord(tail) + 1) if tail else "b")
        given = BandInput(
            **{k: getattr(old, k) for k in bands.BAND_PLAIN if k not in ("label", "note")},
            label=label,
            price=old.price,
        )
        bands.add_band(self.session, given, at=at)

    def event(
        self, band_id: int, at: datetime, kind: str, detail: str, value: float | None = None
    ) -> None:
        given = BandEventInput(
            kind=kind,  # type: ignore[arg-type]
            detail=detail,
            value=value,
            who=self.who(),
        )
        events.add_event(self.session, band_id, given, at=at)

    def week(self, number: int) -> None:
        """One week of the yard's work."""
        self.buy(number)
        start = START + timedelta(weeks=number)
        kinds = [w for w in WORK if "frozen" not in w.material or start.month in (12, 1, 2)]
        days = []
        for _ in range(self.dice.choice(JOBS_A_WEEK)):
            work = self.dice.choices(kinds, [w.share for w in kinds])[0]
            at = start + timedelta(days=self.dice.randrange(5), hours=self.dice.randrange(5))
            days.append((at, work))
        # In order of time: a band scrapped on Friday has not cut on Monday.
        for at, work in sorted(days, key=lambda day: day[0]):
            name = f"{work.name} {at:%b %y}"
            try:
                self.cut(work, self.job_of(work, at, name), at)
            except InputError as problem:
                raise RuntimeError(f"{name}: {problem}") from problem

    def present(self) -> None:
        """What stands open today: the tender's strakes planned, one card begun, saws as left."""
        at = END - timedelta(hours=4)
        frames = self.job_of(
            next(w for w in WORK if w.name == "Planking"), at, "Garboards for the ferry"
        )
        best = self.best_for(frames)
        assert best is not None and frames.saw_id is not None
        band_id = best.evaluation.facts.band.band_id
        assert band_id is not None
        SetUpHistory(self.session, self.saw_ids).fill(
            frames, band_id, best.evaluation.stress_MPa, at
        )
        jobs.add_job(
            self.session,
            JobInput(
                name="Strakes for the tender",
                operation="resaw",
                material="european_larch_dry",
                height_mm=185.0,
                length_mm=3600.0,
                count=7,
                slice_mm=14.0,
                finish="plane",
                tolerance_mm=0.8,
                saw_id=self.saw_ids["shop"],
            ),
            at=END,
        )
        self.stock.rack(END)
        self.lot(END - timedelta(hours=7))
        RackHistory(self.session, self.saw_ids, self.who()).fill(END)
        self.faults()
        slack = TensionInput(state="slack")
        for key in ("shop", "mill", "tern"):
            saws.set_tension(self.session, self.saw_ids[key], slack, at=END)

    def faults(self) -> None:
        """How two saws sounded while they ran well, and the troubles that stand today."""
        at = END - timedelta(days=20)
        for key in ("shop", "tern"):
            saw = get(self.session, "saw", self.saw_ids[key])
            if saw.mounted_band_id is not None:
                self.troubles.good_run(saw.id, saw.mounted_band_id, at, "Brill")
        shop = get(self.session, "saw", self.saw_ids["shop"])
        job = jobs.list_jobs(self.session)
        mine = next(j for j in job if j.saw_id == shop.id and j.band_id == shop.mounted_band_id)
        self.troubles.present(shop, mine.id, END - timedelta(hours=2), "Odda")

    def lot(self, at: datetime) -> None:
        """A lot under way, two sittings in; and an old beam to be opened next."""
        work = next(w for w in WORK if w.name == "Cedar strips")
        strips = self.job_of(work, at, "Strips for the canoe")
        best = self.best_for(strips)
        assert best is not None and strips.saw_id is not None
        band_id = best.evaluation.facts.band.band_id
        assert band_id is not None
        get(self.session, "job", strips.id).band_id = band_id
        self.put_on(strips.saw_id, band_id, best.evaluation.stress_MPa, at)
        for sitting in range(2):
            done = strips.count // 4
            self.log(strips, best, done, at + timedelta(hours=1 + sitting))
        beam = self.job_of(
            next(w for w in WORK if w.operation == "reclaim"), at, "Knees from the ferry's beam"
        )
        self.stock.beam(beam, at, self.who())


LONG_AGO = datetime(1970, 1, 1, tzinfo=UTC)


def up_to_today() -> timedelta:
    """Whole days from the world's end to the last afternoon there was."""
    return timedelta(days=(now() - END) // timedelta(days=1))


def make_world(file: Path, *, later: timedelta = timedelta()) -> None:
    """Write the sample world to a new file, whole or not at all; all of it so much later."""
    partial = file.with_name(file.name + ".making")
    for name in (partial.name, f"{partial.name}-wal", f"{partial.name}-shm"):
        partial.with_name(name).unlink(missing_ok=True)
    store = Store(partial)
    migrate(store)
    with store.write() as session:
        yard = Yard(session)
        yard.open()
        for number in range(WEEKS):
            yard.week(number)
        yard.present()
        if later:
            # What the world wrote with this machine's own time stands where it is.
            move_times(session, LONG_AGO, -later, END)
    store.checkpoint()
    store.close()
    partial.rename(file)
