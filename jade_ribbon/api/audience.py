"""Sentences for whoever reads them: in SI's usual units, or left open for the interface."""

from flask import request

HEADER, OPEN = "Quantities", "open"
"""The interface asks for open quantities, which it fills in the units it shows."""


def wants_open() -> bool:
    """Whether this reader says the quantities itself."""
    return request.headers.get(HEADER) == OPEN
