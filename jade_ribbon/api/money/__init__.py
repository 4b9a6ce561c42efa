"""What sawing costs."""
