"""Looking after saws."""
