"""Run: what was cut."""
