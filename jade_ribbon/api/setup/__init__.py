"""Set-up cards, readings at them, and a saw set up."""
