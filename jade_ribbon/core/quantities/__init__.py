"""Quantities: one range for each, one home for each unit factor, one way to say them."""
