"""Records out as CSV and in again, previewed and all or none."""
