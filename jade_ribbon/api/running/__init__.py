"""Runs."""
