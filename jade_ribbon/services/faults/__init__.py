"""Faults: from a sign to its cause."""
