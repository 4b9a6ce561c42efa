"""What a large record is slow to answer first is worked out beforehand, once the file is served."""

import logging
import threading

from jade_ribbon.services.faults.book import trouble_book
from jade_ribbon.services.faults.trouble_log import learned_faults
from jade_ribbon.services.money.summing import sum_table
from jade_ribbon.services.planning.shopping import shopping_list
from jade_ribbon.services.search.find import search
from jade_ribbon.store.database import Store

LOG = logging.getLogger("jade_ribbon.warming")
FIRST = (
    sum_table,
    learned_faults,
    trouble_book,
    shopping_list,
    lambda session: search(session, "band"),
)


def warm(store: Store) -> None:
    """Ask once for each; what fails is asked for again by whoever wants it."""
    for ask in FIRST:
        try:
            with store.read() as session:
                ask(session)
        except Exception as problem:  # noqa: BLE001 - nobody waits for it
            LOG.info("not worked out beforehand: %r", problem)


def warm_up(store: Store) -> None:
    """The same beside those who are served."""
    threading.Thread(target=warm, args=(store,), name="warming", daemon=True).start()
