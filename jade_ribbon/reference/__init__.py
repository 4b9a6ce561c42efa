"""Reference tables and their loaders."""
