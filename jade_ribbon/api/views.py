"""All rooms of the interface, so that importing this registers every operation."""

from jade_ribbon.api.doors import doors
from jade_ribbon.api.faults import faults
from jade_ribbon.api.files import files
from jade_ribbon.api.inspection import faces
from jade_ribbon.api.keeping import keeping
from jade_ribbon.api.money import ledger
from jade_ribbon.api.planning import jobs, plan
from jade_ribbon.api.rack import band_types, bands, keeping_bands
from jade_ribbon.api.running import runs
from jade_ribbon.api.setup import cards, readings, saw
from jade_ribbon.api.shop import materials, saws, settings
from jade_ribbon.api.stock import stock, yields
from jade_ribbon.api.upkeep import care

__all__ = [
    "band_types",
    "bands",
    "cards",
    "care",
    "doors",
    "faces",
    "faults",
    "files",
    "jobs",
    "keeping",
    "keeping_bands",
    "ledger",
    "materials",
    "plan",
    "readings",
    "runs",
    "saw",
    "saws",
    "settings",
    "stock",
    "yields",
]
