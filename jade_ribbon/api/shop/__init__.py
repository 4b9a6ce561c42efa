"""Settings, saws, materials, tables, search and undo."""
