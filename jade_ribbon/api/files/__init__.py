"""Records out as CSV and in again."""
