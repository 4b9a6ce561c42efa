"""Practise: questions and their scores."""
