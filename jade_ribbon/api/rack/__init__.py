"""Bands and their types."""
