"""Plan."""

from sqlalchemy.orm import Session

from jade_ribbon.api.operations import operation
from jade_ribbon.services import plan
from jade_ribbon.services.inputs import FeedInput, PlanInput


@operation("POST", "/api/plan", answer=plan.PlanAnswer, body=PlanInput)
def plan_cut(session: Session, body: PlanInput) -> plan.PlanAnswer:
    """Which band for a cut on a saw, with settings, reasons and what else would do."""
    return plan.plan(session, body)


@operation("POST", "/api/plan/feed", answer=plan.FeedFigures, body=FeedInput)
def plan_feed(session: Session, body: FeedInput) -> plan.FeedFigures:
    """What happens at a feed with one band."""
    return plan.feed(session, body)
