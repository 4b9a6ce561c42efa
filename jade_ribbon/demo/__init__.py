"""The sample world: an invented boatyard with two years of records."""
