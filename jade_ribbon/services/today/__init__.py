"""Today: what stands open."""
