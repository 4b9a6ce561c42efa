"""`python -m jade_ribbon`."""

from jade_ribbon.cli import main

main()
