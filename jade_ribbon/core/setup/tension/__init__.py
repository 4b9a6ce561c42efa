"""Tension read by any means, and scales brought to it."""
