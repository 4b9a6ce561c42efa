"""All nouns, so that importing this registers every operation."""

from jade_ribbon.api import bands, jobs, materials, plan, runs, saws, setups, shop

__all__ = ["bands", "jobs", "materials", "plan", "runs", "saws", "setups", "shop"]
