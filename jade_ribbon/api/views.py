"""All nouns, so that importing this registers every operation."""

from jade_ribbon.api import bands, jobs, plan, runs, saws, setups, shop

__all__ = ["bands", "jobs", "plan", "runs", "saws", "setups", "shop"]
