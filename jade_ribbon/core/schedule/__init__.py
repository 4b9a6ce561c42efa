"""The run sheet: tasks, change-overs, objective."""
