"""What sawing costs, from the record."""
