"""Faults: what turns, what shakes, causes and checks."""
