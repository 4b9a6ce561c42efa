"""Who may come in from the network, and what they may do."""
