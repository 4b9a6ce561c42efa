"""Setting up: the card, its figures, readings and verdicts."""
