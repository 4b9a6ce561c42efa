"""Use cases: read the store, call the core, write the store; one unit of work each."""
