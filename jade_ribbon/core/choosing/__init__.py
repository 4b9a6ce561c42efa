"""Choosing a band: conflicts, windows, classes, cost, and the choice in words."""
