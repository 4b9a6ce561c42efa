"""Errors that name the field, the value and what is accepted."""

from collections.abc import Iterable
from dataclasses import dataclass

from jade_ribbon.core.quantities.words import Said, join, metric, sentence


@dataclass(frozen=True)
class Fault:
    """One thing wrong with the input: where, what rule, and a sentence for a person."""

    path: str
    message: Said
    value: object = None

    def under(self, prefix: str) -> "Fault":
        """The same fault seen from an enclosing document."""
        path = f"{prefix}.{self.path}" if self.path else prefix
        return Fault(path=path, message=self.message, value=self.value)


class InputError(ValueError):
    """The input cannot be computed with; carries every fault found, not just the first."""

    def __init__(self, faults: Iterable[Fault]) -> None:
        self.faults = tuple(faults)
        super().__init__(
            metric(join("; ", (sentence(f"{f.path}: ", f.message) for f in self.faults)))
        )

    def __reduce__(self) -> tuple[type["InputError"], tuple[tuple[Fault, ...]]]:
        """Faults go with the error from one process to another."""
        return type(self), (self.faults,)


def refuse(path: str, message: Said, value: object = None) -> InputError:
    """Build the error for a single fault."""
    return InputError([Fault(path, message, value)])
