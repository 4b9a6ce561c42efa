"""How sure a choice is: draws of what is not known, chances, what is worth measuring."""
