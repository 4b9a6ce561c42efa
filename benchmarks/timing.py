"""Times of calls, and how they are printed."""

import statistics
import time
from collections.abc import Callable


def timed(call: Callable[[], object], times: int) -> list[float]:
    """Milliseconds of each call, after one that warms up."""
    call()
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        call()
        spent.append(1000 * (time.perf_counter() - start))
    return spent


def report(what: str, spent: list[float], bound: float) -> None:
    p95 = statistics.quantiles(spent, n=20)[-1] if len(spent) > 1 else spent[0]
    middle = statistics.median(spent)
    verdict = "within" if p95 < bound else "OVER"
    print(f"{what:<44} median {middle:6.1f} ms   p95 {p95:6.1f} ms   {verdict} {bound:g} ms")
