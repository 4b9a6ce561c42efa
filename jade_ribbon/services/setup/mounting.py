"""A band put on a saw, or taken off: by whom the shop lets do it."""

from sqlalchemy.orm import Session

from jade_ribbon.services.setup.roles import check_authorised
from jade_ribbon.services.shop.inputs import MountInput
from jade_ribbon.services.shop.saws import SawAnswer, mount, one_saw


def mount_band(session: Session, saw_id: int, given: MountInput) -> SawAnswer:
    """Put a band on a saw, or take it off. ConflictError for a step reserved to others."""
    check_authorised(session, "band_change", given.who)
    mount(session, saw_id, given)
    return one_saw(session, saw_id)
