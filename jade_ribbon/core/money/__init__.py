"""Money: what changing gains, lots, records."""
