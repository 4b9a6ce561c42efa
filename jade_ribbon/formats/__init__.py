"""What goes in and out as files."""
