"""Doing a job with what is on the saw, or with the band changed: minutes and money of each."""

from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import Choice, Ranked
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import Said, figure, sentence

RESET_MIN = 6.0
"""Minutes to change a speed or reset the guard, without changing the band."""
NOTHING_BETTER = "It can, as it is: nothing on the rack does it better."
NOTHING_BETTER_THEN = "It can once the saw is ready: nothing on the rack does it better."


@dataclass(frozen=True)
class Way:
    """One way to do the next job: with what is on, or changed."""

    band_label: str
    able: bool
    words: Said
    minutes: float
    change_minutes: float
    money: float
    finish: str
    edge_after: float | None


def cannot(label: str, words: Said) -> Way:
    """A way that does not go, and why."""
    return Way(label, False, words, 0.0, 0.0, 0.0, "", None)


def way(ranked: Ranked, job: Job, change_min: float) -> Way:
    """Minutes and money of the whole job with a band, its change counted."""
    facts, run = ranked.evaluation.facts, ranked.run
    lot = ranked.lot
    minutes = lot.minutes if lot is not None else run.contact.cutting_time_s * job.cut.cuts / 60.0
    piece = ranked.total - ranked.cost.change
    return Way(
        band_label=facts.band.label,
        able=True,
        words=ranked.class_words,
        minutes=minutes + change_min,
        change_minutes=change_min,
        money=piece * job.cut.cuts + change_min / 60.0 * job.rates.hour,
        finish=run.delivered,
        edge_after=facts.band.dullness + run.equivalent_m * job.cut.cuts / facts.life_m,
    )


def changed_way(best: Ranked, job: Job, as_it_is: Way) -> Way | None:
    """The best way the rack has; None when it is no better than leaving everything as it is."""
    same = best.evaluation.facts.band.mounted
    found = way(best, job, RESET_MIN if same else job.rates.change_min)
    return None if same and as_it_is.able and found.money >= as_it_is.money else found


def change_verdict(
    as_it_is: Way, changed: Way | None, currency: str, *, ready: bool = True
) -> Said:
    """Leave it or change it, and what that gains or costs; of a saw not ready, once it is."""
    if not as_it_is.able:
        cannot_words = sentence("Not as it is: ", as_it_is.words)
        if changed is None:
            return cannot_words
        minutes = f"{changed.change_minutes:.0f} min of change"
        return sentence(cannot_words, f" {changed.band_label} can, after {minutes}.")
    words = NOTHING_BETTER if changed is None else _gain(as_it_is, changed, currency)
    if ready:
        return words
    return NOTHING_BETTER_THEN if words == NOTHING_BETTER else f"Once the saw is ready. {words}"


def _gain(now: Way, then: Way, currency: str) -> str:
    """What changing gains or costs, in a sentence."""
    if then.band_label == now.band_label:
        return NOTHING_BETTER
    minutes, money = now.minutes - then.minutes, now.money - then.money
    more = "saves" if money > 0 else "costs"
    quicker = "quicker" if minutes > 0 else "longer"
    face = "" if then.finish == now.finish else f", and a {then.finish} face"
    doing = "Change" if money > 0 else "Leave it"
    return (
        f"{doing}: {then.band_label} {more} {currency} {figure(abs(money), 2)} over the job, "
        f"{figure(abs(minutes), 2)} min {quicker} with the change{face}."
    )


def prevented(choice: Choice) -> Said:
    """In one sentence, what keeps every band from the job: the commonest last obstacle."""
    if not choice.excluded:
        return "No band of its length is on the rack."
    fewest = min(len(e.conflicts) for e in choice.excluded)
    nearest = [e for e in choice.excluded if len(e.conflicts) == fewest]
    keys = [e.conflicts[0].key for e in nearest]
    commonest = max(set(keys), key=lambda k: (keys.count(k), k))
    example = next(e for e in nearest if e.conflicts[0].key == commonest)
    return sentence(f"{example.facts.band.label}: ", example.conflicts[0].text, ".")
