"""Attacks on the application, on this machine alone: what must hold, held to. See `make attack`."""
