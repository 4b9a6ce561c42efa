"""Faults."""
