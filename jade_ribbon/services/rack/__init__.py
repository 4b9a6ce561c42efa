"""The rack: bands, their pages and types."""
