"""All nouns, so that importing this registers every operation."""

from jade_ribbon.api import (
    band_types,
    bands,
    jobs,
    materials,
    plan,
    readings,
    runs,
    saw_bench,
    saws,
    setups,
    shop,
)

__all__ = [
    "band_types",
    "bands",
    "jobs",
    "materials",
    "plan",
    "readings",
    "runs",
    "saw_bench",
    "saws",
    "setups",
    "shop",
]
