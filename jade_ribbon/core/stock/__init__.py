"""Stock: billets, logs, nesting and joinery."""
