"""The sample boatyard: consistent with the core, the same each time, and of its proper size."""

import shutil
import sqlite3
from collections import Counter
from contextlib import closing
from datetime import timedelta
from pathlib import Path

import pytest
from sqlalchemy import func, select

from jade_ribbon.core.edge.edge_states import edge_state
from jade_ribbon.core.simulation.senses import TRUE_SIDE_FACTOR
from jade_ribbon.demo import world
from jade_ribbon.demo.world import LONG_AGO, up_to_today
from jade_ribbon.demo.yard import BANDS, LENGTHS, PEOPLE, SAWS, WORK
from jade_ribbon.reference.tables import materials, steels, tooth_forms
from jade_ribbon.services.clock import now
from jade_ribbon.services.clock_set import move_times
from jade_ribbon.services.rack.band_page import band_page
from jade_ribbon.services.rack.bands import list_bands
from jade_ribbon.services.rack.replay import refresh, wear_factors
from jade_ribbon.services.shop.saws import core_saw, list_saws
from jade_ribbon.store.database import Store
from jade_ribbon.store.models import (
    BandRow,
    ChangeRow,
    EdgeLifeRow,
    FaceRow,
    FastenerRow,
    JobRow,
    RunRow,
    SawRow,
    StockRow,
)


@pytest.fixture(scope="module")
def yard(yard_file: Path) -> Store:
    return Store(yard_file)


def test_it_is_the_size_it_should_be(yard: Store) -> None:
    with yard.read() as session:
        runs = session.scalars(select(RunRow)).all()
        bands = [*list_bands(session), *list_bands(session, scrapped=True)]
        assert len(list_saws(session)) == 5
        assert 28 <= len(bands) <= 45
        assert 250 <= len(runs) <= 900
        assert (max(r.at for r in runs) - min(r.at for r in runs)).days > 600
        assert any(b.state == "scrapped" for b in bands)
        assert any(b.sharpenings > 0 for b in bands)
        assert any(r.symptoms for r in runs)
        assert len({r.operation for r in runs}) >= 7


def test_counters_are_what_a_replay_gives(yard_copy: Path) -> None:
    store = Store(yard_copy)
    with store.write() as session:
        for row in session.scalars(select(BandRow)):
            before = (row.edge_equivalent_m, row.sharpenings, row.fouling, row.runs, row.state)
            refresh(session, row)
            after = (row.edge_equivalent_m, row.sharpenings, row.fouling, row.runs, row.state)
            assert after == before, row.label
    store.close()


def test_lives_add_up_to_what_was_cut(yard: Store) -> None:
    with yard.read() as session:
        wear = wear_factors(session)
        for band in session.scalars(select(BandRow)):
            lives = session.scalars(select(EdgeLifeRow).where(EdgeLifeRow.band_id == band.id))
            # What waits to be confirmed moves no wear.
            runs = session.scalars(
                select(RunRow).where(RunRow.band_id == band.id, RunRow.to_confirm.is_(False))
            )
            cut = sum(r.equivalent_m * wear.get(r.material, 1.0) for r in runs)
            assert sum(x.equivalent_m for x in lives) == pytest.approx(cut), band.label


def test_no_band_outlived_its_sharpenings_or_cut_after_its_end(yard: Store) -> None:
    with yard.read() as session:
        for band in (*list_bands(session), *list_bands(session, scrapped=True)):
            assert band.sharpenings <= steels()[band.steel].resharpen_times
            page = band_page(session, band.id)
            ends = [e.at for e in page.events if e.kind == "scrapped"]
            if ends:
                assert all(run.at <= ends[0] for run in page.runs)
            assert band.edge == edge_state(band.dullness + 0.4 * band.fouling).key


def test_every_run_was_on_a_saw_that_takes_its_band(yard: Store) -> None:
    with yard.read() as session:
        saws = {s.id: core_saw(s) for s in session.scalars(select(SawRow))}
        bands = {b.id: b for b in session.scalars(select(BandRow))}
        for run in session.scalars(select(RunRow)):
            low, high = saws[run.saw_id].band_length_mm
            assert low <= bands[run.band_id].length_mm <= high
            assert run.height_mm <= saws[run.saw_id].height_mm


def test_every_job_was_cut_whole(yard: Store) -> None:
    with yard.read() as session:
        pieces: Counter[int] = Counter()
        for run in session.scalars(select(RunRow)):
            pieces[run.job_id or 0] += run.pieces
        done = session.scalars(select(JobRow).where(JobRow.state == "done")).all()
        whole = [j for j in done if pieces[j.id] == j.count]
        assert len(whole) > 0.9 * len(done)
        assert all(pieces[j.id] <= j.count for j in done)


def test_it_opens_on_the_tender_s_strakes_and_a_card_half_done(yard: Store) -> None:
    with yard.read() as session:
        names = {j.name: j.state for j in session.scalars(select(JobRow))}
        assert names["Strakes for the tender"] == "planned"
        assert names["Garboards for the ferry"] == "planned"
        states = {s.saw.name: s.tension_state for s in list_saws(session)}
        assert states["Shop saw 400"] == "slack"
        assert states["Long Meg 600"] == "slack"


def test_its_stock_is_what_its_jobs_were_cut_from(yard: Store) -> None:
    with yard.read() as session:
        stock = {s.id: s for s in session.scalars(select(StockRow))}
        jobs = session.scalars(select(JobRow).where(JobRow.stock_id.is_not(None))).all()
        assert len(jobs) > 15
        for job in jobs:
            piece = stock[job.stock_id or 0]
            assert piece.state == ("gone" if job.state == "done" else "in"), job.name
            assert piece.material == job.material and piece.arrived_at <= job.updated_at
        assert sum(s.state == "in" for s in stock.values()) >= 10
        assert any(s.reactive for s in stock.values()) and any(s.parent_id for s in stock.values())


def test_metal_sawn_through_is_the_metal_that_was_struck(yard: Store) -> None:
    with yard.read() as session:
        found = session.scalars(select(FastenerRow)).all()
        jobs = {j.stock_id: j.id for j in session.scalars(select(JobRow)) if j.stock_id}
        for stock_id in {f.stock_id for f in found}:
            mine = [f for f in found if f.stock_id == stock_id]
            runs = session.scalars(select(RunRow).where(RunRow.job_id == jobs[stock_id])).all()
            struck = sum(r.strikes for r in runs)
            through = sum(f.state == "sawn_through" for f in mine)
            assert through == min(struck, len(mine))


def test_faces_taught_its_saws_and_say_what_the_simulated_ones_are(yard: Store) -> None:
    with yard.read() as session:
        faces = session.scalars(select(FaceRow)).all()
        assert len(faces) > 15 and not any(f.simulated for f in faces)
        saws = session.scalars(select(SawRow)).all()
        taught = [s for s in saws if s.side_sd_ln is not None]
        assert len(taught) >= 2
        for saw in taught:
            # Each simulated saw's own factor lies between these.
            low, high = TRUE_SIDE_FACTOR
            assert 0.7 * low <= saw.side_factor <= 1.4 * high


def test_it_is_the_same_each_time(
    yard_file: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The first months again from the same seed give the same runs."""
    monkeypatch.setattr(world, "WEEKS", 12)
    monkeypatch.setattr(world.Yard, "present", lambda _self: None)
    again = tmp_path / "again.sqlite"
    world.make_world(again)
    query = "SELECT at, band_id, pieces, feed_m_min, equivalent_m FROM run ORDER BY id"
    with closing(sqlite3.connect(again)) as a, closing(sqlite3.connect(yard_file)) as b:
        repeated = a.execute(query).fetchall()
        first = b.execute(query).fetchmany(len(repeated))
    assert len(repeated) > 5
    assert repeated == first
    assert not list(tmp_path.glob("*.making*"))


def test_its_words_are_in_the_tables() -> None:
    assert {w.material for w in WORK} <= set(materials())
    assert {w.saw for w in WORK} == set(SAWS) == set(LENGTHS)
    for band in BANDS:
        assert band.form in tooth_forms()
        assert band.steel in steels()
        low, high = SAWS[band.saw]["band_length_mm"]
        assert low <= LENGTHS[band.saw] <= high
    assert len({b.label for b in BANDS}) == len(BANDS)
    assert len(PEOPLE) >= 3


def test_the_demo_s_records_end_today_and_are_the_same_but_for_that(
    yard_file: Path, tmp_path: Path
) -> None:
    """Moved by whole days, nothing lies ahead of the clock, and every span between stays."""
    later = up_to_today()
    file = Path(shutil.copy(yard_file, tmp_path / "later.sqlite"))
    store = Store(file)
    with store.read() as session:
        before = list(session.scalars(select(RunRow.at).order_by(RunRow.id)))
    with store.write() as session:
        move_times(session, LONG_AGO, -later, world.END)
    with store.read() as session:
        changed = session.scalar(select(func.max(ChangeRow.at)))
        after = list(session.scalars(select(RunRow.at).order_by(RunRow.id)))
    store.close()
    assert {b - a for a, b in zip(before, after, strict=True)} == {later}
    assert now() - timedelta(days=2) < max(after) <= now()
    assert changed is not None and changed <= now()
