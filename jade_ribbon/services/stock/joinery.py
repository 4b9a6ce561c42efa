"""Rings of segments and circles about a pin, on this shop's saws."""

from sqlalchemy.orm import Session

from jade_ribbon.core.stock.joinery import CircleJig, Ring, circle_jig, ring
from jade_ribbon.services.records import get
from jade_ribbon.services.stock.inputs import CircleInput, RingInput
from jade_ribbon.store.models import SawRow


def ring_figures(given: RingInput) -> Ring:
    """A ring as it is cut. InputError."""
    return ring(**given.model_dump())


def circle_figures(session: Session, given: CircleInput) -> CircleJig:
    """A circle on a saw of this shop. NotFoundError, InputError."""
    saw: SawRow = get(session, "saw", given.saw_id)
    return circle_jig(**given.model_dump(exclude={"saw_id"}), throat_mm=saw.throat_mm)
