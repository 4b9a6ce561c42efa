"""Errors of the use cases beside bad input."""


class NotFoundError(LookupError):
    """The record does not exist, or was deleted."""

    def __init__(self, noun: str, key: object) -> None:
        super().__init__(f"There is no {noun} {key}.")
        self.noun, self.key = noun, key


class ConflictError(RuntimeError):
    """The record is not in a state for this; the message says what to do first."""
