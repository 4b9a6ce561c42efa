"""What is told to whoever asks while a shop's file is brought up."""

from collections.abc import Iterable

from jade_ribbon.api.problems import PROBLEM, problem_body

Told = tuple[int, Iterable[tuple[str, str]], bytes]
"""Status, headers and body of an answer."""


class Opening:
    """How far the shop's file is on its way to be served; told to whoever asks meanwhile."""

    def __init__(self) -> None:
        self.done, self.of = 0, 0
        self.is_open = False
        self.failed: Exception | None = None

    def came(self, done: int, of: int) -> None:
        self.done, self.of = done, of

    @property
    def words(self) -> str:
        far = f": {self.done} of {self.of} bands" if self.of else ""
        return f"The shop's records are being brought up to this version{far}."

    def told(self, path: str) -> Told:
        """The answer to a request that comes too early; a page asks again by itself."""
        kept = [("Retry-After", "1"), ("Cache-Control", "no-store")]
        if path.startswith("/api/"):
            body = problem_body(503, "opening", self.words)
            return 503, [*kept, ("Content-Type", PROBLEM)], body.encode()
        page = (
            "<!doctype html><meta charset=utf-8><meta http-equiv=refresh content=1>"
            f"<title>Jade Ribbon</title><p role=status>{self.words}</p>"
        )
        return 503, [*kept, ("Content-Type", "text/html; charset=utf-8")], page.encode()
