"""Faces of sawn pieces."""
