"""Measurements: speed as figures, and the pictures of the README."""
