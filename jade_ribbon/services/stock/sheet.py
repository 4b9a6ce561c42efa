"""The marks of a billet's cuts for the printer."""

from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.words import between, metric, quantity, said, sentence
from jade_ribbon.formats.printed.cut_marks import MarkedSlice, MarkSheet
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.records import get
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.services.stock.inputs import StockQuestion
from jade_ribbon.services.stock.stock_plan import plan_stock
from jade_ribbon.store.models import JobRow


def mark_sheet(session: Session, stock_id: int, asked: StockQuestion) -> MarkSheet:
    """The sheet of a billet for a job. ConflictError where nothing is worked out for it."""
    plan = plan_stock(session, stock_id, asked)
    if plan.billet is None or asked.job_id is None:
        raise ConflictError(f"There are no cuts to print: {metric(plan.why_not)}")
    job: JobRow = get(session, "job", asked.job_id)
    units = read_shop(session).units
    leaves = iter(plan.billet.leaves.leaves)
    slices = []
    for piece in plan.billet.laid.slices:
        short = said(sentence("too thin by ", quantity(-piece.over_mm, "thin")), units)
        words = "left over" if piece.over_mm > 0 else short
        if piece.piece:
            leaf = next(leaves)
            words = f"leaf {leaf.number}, pair {leaf.pair}, shows its {leaf.shows}"
        lies = sentence(
            between(piece.from_mm, piece.to_mm, "thin"),
            ", ",
            quantity(piece.to_mm - piece.from_mm, "thin"),
            " thick",
        )
        place = said(lies, units)
        slices.append(MarkedSlice(piece.number, piece.from_mm, piece.to_mm, place, words))
    cut = plan.cut_with
    trued = sentence(
        f"{plan.stock.material_name}; ",
        quantity(plan.billet.usable_mm, "thin"),
        " once trued; kerf ",
        quantity(cut.kerf_mm, "thin"),
        f" with {cut.band_label or 'no band chosen yet'}.",
    )
    lines = (said(trued, units), said(plan.billet.worth.words, units))
    title = f"{plan.stock.label}: {job.name or f'Job {job.id}'}"
    return MarkSheet(title, plan.billet.usable_mm, tuple(slices), lines)
