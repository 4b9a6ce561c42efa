"""Formulas only, each with its source; they know quantities and nothing else."""
