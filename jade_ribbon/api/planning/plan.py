"""Plan."""

from sqlalchemy.orm import Session

from jade_ribbon.api.operations import operation
from jade_ribbon.services.planning import beside, considered, outlines, plan, shopping
from jade_ribbon.services.planning.answers import FeedFigures, PlanAnswer
from jade_ribbon.services.planning.inputs import CompareInput, FeedInput, OutlineInput, PlanInput
from jade_ribbon.services.planning.type_table import TypeLine, type_table


@operation("POST", "/api/plan", answer=PlanAnswer, body=PlanInput, asks=True)
def plan_cut(session: Session, body: PlanInput) -> PlanAnswer:
    """Which band for a cut on a saw, with settings, reasons and what else would do."""
    return plan.plan(session, body)


@operation("POST", "/api/plan/feed", answer=FeedFigures, body=FeedInput, asks=True)
def plan_feed(session: Session, body: FeedInput) -> FeedFigures:
    """What happens at a feed with one band."""
    return beside.feed(session, body)


@operation("POST", "/api/plan/outline", answer=outlines.OutlineAnswer, body=OutlineInput, asks=True)
def read_outline(session: Session, body: OutlineInput) -> outlines.OutlineAnswer:
    """The tightest radius of a drawing and the bands that turn it."""
    return outlines.read(session, body)


@operation("GET", "/api/saws/<int:saw_id>/considered", answer=considered.ConsideredAnswer)
def considered_saw(session: Session, saw_id: int) -> considered.ConsideredAnswer:
    """What a saw would do with the shop's latest jobs, against the saws one has."""
    return considered.considered(session, saw_id)


@operation("GET", "/api/radius-card", answer=list[outlines.TurningBand])
def radius_card(session: Session) -> list[outlines.TurningBand]:
    """The radius each band of the rack turns."""
    return outlines.radius_card(session)


@operation("POST", "/api/plan/compare", answer=list[beside.Compared], body=CompareInput, asks=True)
def compare_bands(session: Session, body: CompareInput) -> list[beside.Compared]:
    """Up to four bands of the rack beside each other in one cut."""
    return beside.compare(session, body)


@operation("GET", "/api/shopping", answer=list[shopping.ShoppingLine])
def shopping_list(session: Session) -> list[shopping.ShoppingLine]:
    """Bands that the open jobs want and the rack cannot give."""
    return shopping.shopping_list(session)


@operation("POST", "/api/plan/sway", answer=beside.SwayAnswer, body=PlanInput, asks=True)
def what_sways(session: Session, body: PlanInput) -> beside.SwayAnswer:
    """What each house rule costs here, and what would change the choice."""
    return beside.sway(session, body)


@operation("GET", "/api/types", answer=list[TypeLine])
def all_types(session: Session) -> list[TypeLine]:
    """All band types to look through: built in, and the shop's own."""
    return type_table(session)
