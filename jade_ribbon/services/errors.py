"""Errors of the use cases beside bad input."""

from typing import Any


class NotFoundError(LookupError):
    """The record does not exist, or was deleted."""

    def __init__(self, noun: str, key: object) -> None:
        super().__init__(f"There is no {noun} {key}.")
        self.noun, self.key = noun, key


class ConflictError(RuntimeError):
    """The record is not in a state for this; the message says what to do first."""


class StaleError(ConflictError):
    """The record was saved by somebody else since it was read: what it is now, and its version."""

    def __init__(self, version: int, current: dict[str, Any]) -> None:
        super().__init__("This was changed by somebody else since you opened it.")
        self.version, self.current = version, current


class KnownError(ConflictError):
    """A write's key is known with another content: what was kept under it."""

    def __init__(self, words: str, current: dict[str, Any]) -> None:
        super().__init__(words)
        self.current = current


class ReadOnlyError(ConflictError):
    """Nothing is kept here; the message says why."""


class NotAllowedError(RuntimeError):
    """Whoever asks may not; the message says who may."""
