"""What a sawn face is, what it teaches of its saw, and what to change."""
