"""Jobs and Plan."""
