"""What every shop has alike: pages, steps, house rules and terms, in an index made once."""

from functools import lru_cache

from jade_ribbon.core.quantities.words import metric, table_text
from jade_ribbon.reference.faults import sign_texts
from jade_ribbon.reference.tables import help_terms, house_rules, pages, setup_step_texts
from jade_ribbon.services.search.index import Entry, Index


def known_entries() -> list[Entry]:
    """Pages first, so that of equals the page is offered before what it holds."""
    found = [
        Entry("page", p.key, p.title, p.help, " ".join(p.called), p.place) for p in pages().values()
    ]
    found += [
        Entry("house rule", r.key, r.title, metric(table_text(r.why)), "", "/shop/rules")
        for r in house_rules().values()
    ]
    steps = {s.key: s for s in setup_step_texts()}
    found += [Entry("step", s.key, s.title, "Set up", "", "/setup") for s in steps.values()]
    found += [
        Entry("sign", s.key, s.name, s.look, "fault trouble", f"/faults?signs={s.key}")
        for s in sign_texts().values()
    ]
    found += [
        Entry("term", t.key, t.title, t.what, " ".join(t.called), f"/help/{t.key}")
        for t in help_terms().values()
    ]
    return found


@lru_cache(maxsize=1)
def known_index() -> Index:
    """The index of them."""
    index = Index()
    index.put(known_entries())
    return index
