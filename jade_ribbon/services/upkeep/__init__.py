"""Looking after saws, and bringing them to life."""
