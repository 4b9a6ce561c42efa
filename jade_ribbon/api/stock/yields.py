"""Which pieces from which billets."""

from sqlalchemy.orm import Session

from jade_ribbon.api.operations import operation
from jade_ribbon.services.stock import yields


@operation("POST", "/api/yield", answer=yields.YieldAnswer, body=yields.CutListQuestion, asks=True)
def cut_list(session: Session, body: yields.CutListQuestion) -> yields.YieldAnswer:
    """The best plan found for a cut list: sections, slices, what is left."""
    del session
    return yields.answer(body)
