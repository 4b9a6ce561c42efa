"""Shared by the tests of several rooms: histories."""

from jade_ribbon.core.job import Candidate

K07 = Candidate("K-07", 19.0, 0.81, 2.0, 2.0, "hook", "silicon_steel", length_mm=3360.0)
