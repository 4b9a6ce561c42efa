"""What a shop starts from: its kind of saw, what is worked out of what it knows, a first job."""
