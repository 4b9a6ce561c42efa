"""Jade Ribbon: choose, set up, run and track band saw blades by computation."""

__version__ = "0.1.0"
