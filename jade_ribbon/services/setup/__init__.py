"""Set up: cards, steps, readings, and the saw as it stands."""
