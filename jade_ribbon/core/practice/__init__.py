"""Practice: questions, scoring, spacing."""
