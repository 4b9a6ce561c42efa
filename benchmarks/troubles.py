"""Simulated troubles: how soon the true cause stands first, against a fixed checklist."""

import time
from collections.abc import Mapping
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass

import numpy as np
from flask.testing import FlaskClient

from benchmarks.timing import report
from jade_ribbon.core.faults.acting import check_now
from jade_ribbon.core.faults.diagnosis import Diagnosis, Told, infer
from jade_ribbon.core.faults.knowledge import CheckModel, Knowledge, listed
from jade_ribbon.core.faults.next_check import offers

TROUBLES = 2_000
CHECKS = 5
MOST_SIGNS = 3
MOST_CHECKS = 46
SURE = 0.5
"""The cause is come to when it stands first and is likelier than not."""
SECOND_SHARE = 0.25


@dataclass(frozen=True)
class Trouble:
    """True causes, the first being the complaint's; signs noticed."""

    causes: tuple[int, ...]
    signs: Mapping[str, float]


@dataclass(frozen=True)
class Played:
    """One trouble played: first and in three after five checks; minutes, and by a checklist."""

    cause: str
    first: bool
    in_three: bool
    minutes: float
    checklist_min: float
    seconds: tuple[float, ...]


def _signs(known: Knowledge, cause: int, random: np.random.Generator) -> list[int]:
    """Signs that a cause shows this time."""
    shown = random.random(len(known.signs)) < known.shows[cause]
    return [int(s) for s in np.flatnonzero(shown)]


def some_trouble(known: Knowledge, random: np.random.Generator, *, second: bool) -> Trouble:
    """A cause drawn equally, a second one in a quarter of them; one to three signs noticed."""
    cause = int(random.integers(len(known.causes)))
    causes = [cause]
    if second and random.random() < SECOND_SHARE:
        other = int(random.integers(len(known.causes) - 1))
        causes.append(other + (other >= cause))
    own: list[int] = []
    while not own:
        own = _signs(known, cause, random)
    shown = list(dict.fromkeys([*own, *(s for c in causes[1:] for s in _signs(known, c, random))]))
    noticed = random.permutation(shown)[: int(random.integers(1, MOST_SIGNS + 1))]
    return Trouble(tuple(causes), {known.signs[int(s)]: 1.0 for s in noticed})


def _answer(check: CheckModel, trouble: Trouble, random: np.random.Generator) -> str:
    """A check's answer comes of the true cause that it speaks of most."""
    row = next((int(c) for c in check.speaks if c in trouble.causes), check.causes)
    return check.outcomes[int(random.choice(len(check.outcomes), p=check.chances[row]))]


def _come_to(found: Diagnosis, truth: frozenset[str]) -> bool:
    return found.first in truth and found.chance(found.first) >= SURE


def play(known: Knowledge, trouble: Trouble, seed: int) -> Played:
    """Ask till the cause is come to; the answers to one check are the same by either way."""
    truth = frozenset(known.causes[c] for c in trouble.causes)
    told = {
        c.key: _answer(c, trouble, np.random.default_rng([seed, i]))
        for i, c in enumerate(known.checks)
    }
    answers: dict[str, str] = {}
    seconds, minutes, after_five = [], 0.0, None
    found = infer(Told(trouble.signs, {}, answers), known)
    while len(answers) < MOST_CHECKS:
        if len(answers) >= CHECKS and _come_to(found, truth):
            break
        begun = time.perf_counter()
        offer = check_now(found, offers(found)).offer
        seconds.append(time.perf_counter() - begun)
        if offer is None:
            break
        if not _come_to(found, truth):
            minutes += offer.minutes
        answers[offer.check] = told[offer.check]
        begun = time.perf_counter()
        found = infer(Told(trouble.signs, {}, answers), known)
        seconds[-1] += time.perf_counter() - begun
        if len(answers) == CHECKS:
            after_five = found
    after_five = after_five or found
    return Played(
        known.causes[trouble.causes[0]],
        after_five.first in truth,
        bool(truth & {known.causes[int(i)] for i in after_five.order[:3]}),
        minutes,
        _by_checklist(known, trouble, told, truth),
        tuple(seconds),
    )


def _by_checklist(
    known: Knowledge, trouble: Trouble, told: Mapping[str, str], truth: frozenset[str]
) -> float:
    """Minutes when the checks are made down the list, short ones first, read as well as ours."""
    answers: dict[str, str] = {}
    minutes = 0.0
    for check in known.checks:
        if _come_to(infer(Told(trouble.signs, {}, answers), known), truth):
            break
        answers[check.key] = told[check.key]
        minutes += check.minutes
    return minutes


def _play_some(given: tuple[int, int, bool]) -> list[Played]:
    first, count, second = given
    known = listed()
    return [
        play(known, some_trouble(known, np.random.default_rng([7, s]), second=second), s)
        for s in range(first, first + count)
    ]


def play_many(count: int, *, second: bool, workers: int = 2) -> list[Played]:
    """So many troubles, each by its own number: the same every time."""
    each = 50
    parts = [(s, min(each, count - s), second) for s in range(0, count, each)]
    with ProcessPoolExecutor(workers) as pool:
        return [p for part in pool.map(_play_some, parts) for p in part]


@dataclass(frozen=True)
class Summary:
    """Shares first and in three after five checks; minutes over a checklist's; the worst causes."""

    first: float
    in_three: float
    minutes_share: float
    worst: tuple[tuple[str, float], ...]
    p95_ms: float


def summed(played: list[Played]) -> Summary:
    """What a number of played troubles come to."""
    by_cause: dict[str, list[bool]] = {}
    for one in played:
        by_cause.setdefault(one.cause, []).append(one.first)
    worst = sorted((float(np.mean(v)), k) for k, v in by_cause.items())[:5]
    return Summary(
        float(np.mean([p.first for p in played])),
        float(np.mean([p.in_three for p in played])),
        sum(p.minutes for p in played) / sum(p.checklist_min for p in played),
        tuple((k, share) for share, k in worst),
        1000.0 * float(np.percentile([s for p in played for s in p.seconds], 95)),
    )


SIGNS = ("tick", "barrel", "drift", "washboard", "burn", "vibration", "hard_push", "wander")
ASKED = 6


def bench_answers(client: FlaskClient) -> None:
    """An answer over the API with the next check, causes and their reasons; records read."""
    spent = []
    jobs = client.get("/api/jobs").get_json()
    job = next(j for j in jobs if j["saw_id"] and j["band_id"])
    about = {"saw_id": job["saw_id"], "band_id": job["band_id"], "job_id": job["id"]}
    for sign in SIGNS:
        told = {**about, "symptoms": {sign: "clear"}}
        trouble = client.post("/api/faults", json=told).get_json()
        for _ in range(ASKED):
            check = trouble["check"]
            if check is None:
                break
            likely = max(check["outcomes"], key=lambda o: float(o["chance"]))
            body = {"check": check["key"], "outcome": likely["key"]}
            begun = time.perf_counter()
            trouble = client.post(f"/api/faults/{trouble['id']}/answer", json=body).get_json()
            spent.append(1000.0 * (time.perf_counter() - begun))
    report("faults: an answer and the next check", spent, 60)


def bench_troubles(count: int = TROUBLES) -> None:
    """Print how well faults are found, one cause and with a second one in a quarter."""
    for title, second in (("one cause", False), ("a second in a quarter", True)):
        found = summed(play_many(count, second=second))
        worst = ", ".join(f"{k} {share:.0%}" for k, share in found.worst)
        print(
            f"faults, {title}: first after {CHECKS} checks {found.first:.1%} (82), in three "
            f"{found.in_three:.1%} (92), minutes {found.minutes_share:.0%} of a checklist's (60); "
            f"answer and next check p95 {found.p95_ms:.0f} ms (60); worst: {worst}"
        )
