"""A simulated saw: what its instruments would read, faults included."""
