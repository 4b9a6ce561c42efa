"""Sentences for whoever reads them: in SI's usual units, or left open for the interface."""

from flask import request

from jade_ribbon.core.quantities.words import metric

HEADER, OPEN = "Quantities", "open"
"""The interface asks for open quantities, which it fills in the units it shows."""


def for_reader(json_text: str) -> str:
    """The sentences of an answer as its reader asked for them."""
    return json_text if request.headers.get(HEADER) == OPEN else metric(json_text)
