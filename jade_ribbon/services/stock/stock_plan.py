"""What a billet or a log gives for a job: pieces, money, cuts, leaves, metal."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import cast

from sqlalchemy.orm import Session

from jade_ribbon.core.bands.slow_pass import SlowPass, slow_pass
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.job import STRAIGHT_OPERATIONS
from jade_ribbon.core.mechanics.slicing import EXACT_FIT_SLACK
from jade_ribbon.core.quantities.errors import InputError, refuse
from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.core.stock.condition import PREPARE_MM, Trued
from jade_ribbon.core.stock.fasteners import (
    DigOrSaw,
    MetalPrices,
    SlowZone,
    dig_or_saw,
    slow_minutes,
    slow_zones,
    strikes_expected,
)
from jade_ribbon.core.stock.laying import LaidCuts, even_cuts, lay_cuts
from jade_ribbon.core.stock.leaves import MatchedSet, matched_set
from jade_ribbon.core.stock.log_worth import LogWorth, RoundLog, log_worth
from jade_ribbon.core.stock.losses import USUAL_FEED_M_MIN, USUAL_LOSSES
from jade_ribbon.core.stock.opening import NextCut, OpeningRule, growth_mm, next_cut
from jade_ribbon.core.stock.worth import (
    BilletRule,
    BilletSize,
    BilletWorth,
    Money,
    PieceWanted,
    billet_worth,
)
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.planning.jobs import JobAnswer, job_with_band, one_job, rules_file
from jade_ribbon.services.rack.edges import MINOR
from jade_ribbon.services.records import as_record, get, log_change
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.services.stock.inputs import StockQuestion
from jade_ribbon.services.stock.records import (
    FastenerAnswer,
    StockAnswer,
    core_fastener,
    fasteners,
    mapped,
    siblings,
    stock_answer,
)
from jade_ribbon.store.models import BandRow, JobRow, SawRow, StockRow


@dataclass(frozen=True)
class CutWith:
    """What a job is cut with, as far as stock goes; assumed until a band is chosen for it."""

    band_label: str
    kerf_mm: float
    feed_m_min: float
    steel: str
    edge_value: float
    slow: SlowPass | None
    assumed: bool


@dataclass(frozen=True)
class BilletPlanAnswer:
    """A billet for a job: what it gives, its cuts as laid, leaves, and the next cut of all."""

    worth: BilletWorth
    laid: LaidCuts
    cuts_mm: list[float]
    usable_mm: float
    leaves: MatchedSet
    opening: NextCut | None
    grew_mm: float | None
    siblings: list[StockAnswer]


@dataclass(frozen=True)
class MetalPlanAnswer:
    """The metal in a piece of stock: where to go slow, and whether to dig it out."""

    marks: list[FastenerAnswer]
    zones: tuple[SlowZone, ...]
    strikes: float
    choice: DigOrSaw | None
    """None without a band, whose steel and edge a strike costs, and without a thickness of the
    pieces: where the cuts fall tells what they meet."""


@dataclass(frozen=True)
class StockPlan:
    """A piece of stock for a job, with what it is cut with."""

    stock: StockAnswer
    cut_with: CutWith
    billet: BilletPlanAnswer | None
    log: LogWorth | None
    metal: MetalPlanAnswer
    why_not: Said
    """Why nothing is worked out; empty where it is."""
    other_wood: str
    """What the job is planned in, where this is something else; else empty."""


def _cut_with(session: Session, job: JobRow | None, band_id: int | None) -> CutWith:
    saw = session.get(SawRow, job.saw_id) if job and job.saw_id else None
    wanted = (job.band_id if job else None) or band_id
    band = session.get(BandRow, wanted) if wanted else None
    if job is not None and saw is not None and band is not None:
        planned, _ = job_with_band(session, job, saw, band.id)
        if planned.bands:
            found = evaluate(planned.bands[0], planned)
            facts = found.facts
            feed = found.run.feed_m_min if found.run else USUAL_FEED_M_MIN
            return CutWith(
                band.label,
                facts.kerf_mm,
                feed,
                facts.steel.token,
                facts.price * max(0.0, 1.0 - facts.band.dullness),
                slow_pass(facts, planned, feed),
                assumed=found.run is None,
            )
    kerf, feed = USUAL_LOSSES.kerf_mm, USUAL_FEED_M_MIN
    return CutWith("", kerf, feed, "", 0.0, None, assumed=True)


def _piece(job: JobRow, cut: CutWith, asked: StockQuestion) -> PieceWanted:
    assert job.slice_mm is not None
    return PieceWanted(
        thickness_mm=job.slice_mm,
        height_mm=job.height_mm,
        length_mm=job.length_mm,
        count=job.count,
        clean_up_per_face_mm=asked.clean_up_per_face_mm,
        kerf_mm=cut.kerf_mm,
        crosscut_kerf_mm=asked.crosscut_kerf_mm,
        trim_mm=asked.trim_mm,
        minutes_a_cut=job.length_mm / 1000.0 / cut.feed_m_min,
    )


def _billet(
    session: Session, row: StockRow, job: JobRow, cut: CutWith, asked: StockQuestion
) -> BilletPlanAnswer:
    shop = read_shop(session)
    assert row.thickness_mm is not None and row.height_mm is not None
    size = BilletSize(
        thickness_mm=row.thickness_mm,
        height_mm=row.height_mm,
        length_mm=row.length_mm,
        bow_mm=abs(row.bow_mm),
        twist_mm=row.twist_mm,
        prepare_mm=PREPARE_MM[cast(Trued, row.trued)],
    )
    piece = _piece(job, cut, asked)
    price = None if row.price_minor is None else row.price_minor / MINOR
    worth = billet_worth(
        size,
        piece,
        Money(price, shop.rates.timber_m3, shop.rates.hour),
        rule=cast(BilletRule, shop.rules["billet"]),
        bought_mm=asked.bought_mm,
    )
    way = next(w for w in worth.ways if w.key == worth.best)
    sawn, usable = way.sawn_thickness_mm, max(way.usable_mm, cut.kerf_mm)
    given = asked.cuts_mm
    if given is None:
        whole = way.slices * sawn + max(way.slices - 1, 0) * cut.kerf_mm
        ends = way.slices if usable - whole > cut.kerf_mm else max(way.slices - 1, 0)
        given = list(even_cuts(ends, slice_mm=sawn, kerf_mm=cut.kerf_mm))
    laid = lay_cuts(
        given,
        thickness_mm=usable,
        kerf_mm=cut.kerf_mm,
        slice_mm=sawn - EXACT_FIT_SLACK,
        finished_mm=piece.thickness_mm,
    )
    parts = siblings(session, row)
    grew = None
    if len(parts) == 2:
        parent: StockRow = get(session, "stock", cast(int, row.parent_id))
        grew = growth_mm(parent.bow_mm, parts[0].bow_mm, parts[1].bow_mm)
    opening = None
    if row.reactive:
        opening = next_cut(
            thickness_mm=size.thickness_mm,
            bow_mm=size.bow_mm,
            slice_mm=sawn,
            kerf_mm=cut.kerf_mm,
            prepare_loss_mm=PREPARE_MM["face"],
            grew_mm=grew,
            rule=cast(OpeningRule, shop.rules["reactive"]),
        )
    leaves = matched_set(laid.pieces, height_mm=piece.height_mm, joint_loss_mm=asked.joint_loss_mm)
    others = [stock_answer(session, part) for part in parts if part.id != row.id]
    return BilletPlanAnswer(worth, laid, list(given), usable, leaves, opening, grew, others)


def _log(
    session: Session, row: StockRow, job: JobRow | None, cut: CutWith, asked: StockQuestion
) -> LogWorth:
    board = asked.board_mm or (job.slice_mm if job else None)
    if board is None:
        raise refuse("board_mm", "is missing; accepted: how thick its boards are to be", None)
    return log_worth(
        RoundLog(row.small_end_mm or 0.0, row.bark_mm or 0.0, row.length_mm, asked.trim_mm),
        board_mm=board,
        kerf_mm=cut.kerf_mm,
        least_width_mm=asked.least_width_mm,
        cant_mm=asked.cant_mm,
        price=None if row.price_minor is None else row.price_minor / MINOR,
        minutes_a_cut=row.length_mm / 1000.0 / cut.feed_m_min,
        hour_rate=read_shop(session).rates.hour,
    )


def _metal(
    session: Session,
    row: StockRow,
    job: JobRow | None,
    cut: CutWith,
    billet: BilletPlanAnswer | None,
) -> MetalPlanAnswer:
    shop = read_shop(session)
    found = [core_fastener(f) for f in fasteners(session, row.id)]
    thick = row.thickness_mm or row.small_end_mm or 0.0
    shown: Sequence[float] = billet.cuts_mm if billet is not None else (thick / 2.0,)
    if job is not None and job.operation not in STRAIGHT_OPERATIONS:
        shown = (thick / 2.0,)
    share = min(1.0, job.height_mm / row.height_mm) if job and row.height_mm else 1.0
    zones = slow_zones(found, row.length_mm)
    strikes = strikes_expected(found, shown, thickness_mm=thick, height_share=share)
    choice = None
    if job is not None and job.slice_mm is not None and found and cut.steel:
        wood = job.length_mm * job.height_mm * (job.slice_mm or thick) * 1e-9
        prices = MetalPrices(
            piece_value=wood * shop.rates.timber_m3,
            piece_length_mm=job.length_mm,
            steel=cut.steel,
            edge_value=cut.edge_value,
            change_min=shop.rates.change_min,
            slow_min=slow_minutes(
                zones,
                cuts=len(shown),
                feed_m_min=cut.feed_m_min,
                slow_m_min=cut.slow.feed_m_min if cut.slow else None,
            ),
            hour_rate=shop.rates.hour,
        )
        choice = dig_or_saw(
            found,
            shown,
            prices,
            thickness_mm=thick,
            rule=rules_file(session, job).to_core().old_metal,
            height_share=share,
        )
    return MetalPlanAnswer(mapped(session, row.id), zones, strikes, choice)


def _why_not(row: StockRow, job: JobRow | None) -> Said:
    """What stands in the way of working a billet out."""
    if job is None:
        return "Take a job in hand: then it is worked out what this piece gives for it."
    if row.kind == "billet" and job.slice_mm is None:
        return "The job does not say how thick its pieces are: say it in Plan."
    if row.kind == "billet" and job.height_mm > (row.height_mm or 0.0):
        return sentence(
            "The job's pieces are ",
            quantity(job.height_mm, "length"),
            " high, this piece ",
            quantity(row.height_mm or 0.0, "length"),
            ".",
        )
    return ""


def plan_stock(session: Session, stock_id: int, asked: StockQuestion) -> StockPlan:
    """What a piece of stock gives for a job. NotFoundError; InputError for impossible figures."""
    row: StockRow = get(session, "stock", stock_id)
    job: JobRow | None = get(session, "job", asked.job_id) if asked.job_id else None
    cut = _cut_with(session, job, asked.band_id)
    why = _why_not(row, job)
    billet = log = None
    if row.kind == "billet" and job is not None and not why:
        billet = _billet(session, row, job, cut, asked)
    if row.kind == "log":
        if job is None and asked.board_mm is None:
            why = "Say how thick its boards are to be, or take a job in hand."
        else:
            try:
                log, why = _log(session, row, job, cut, asked), ""
            except InputError as error:
                if asked.board_mm is not None or asked.cant_mm is not None:
                    raise
                why = "; ".join(str(f.message) for f in error.faults)
    metal = _metal(session, row, job, cut, billet)
    other = ""
    if job is not None and job.material != row.material:
        planned = material_table(session).get(job.material)
        other = planned.name if planned else job.material
    return StockPlan(stock_answer(session, row), cut, billet, log, metal, why, other)


def set_job_stock(session: Session, job_id: int, stock_id: Id | None) -> JobAnswer:
    """The stock a job is cut from: its thickness is the job's billet from now on."""
    job: JobRow = get(session, "job", job_id)
    before = as_record(job)
    if stock_id is not None:
        row: StockRow = get(session, "stock", stock_id)
        if row.kind == "billet":
            job.billet_mm = row.thickness_mm
    job.stock_id = stock_id
    log_change(session, job, "edit", before)
    return one_job(session, job_id)
