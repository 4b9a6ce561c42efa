"""`python -m jade_ribbon`."""

from jade_ribbon.cli import main

if __name__ == "__main__":  # a reader of strangers' files is not a second application
    main()
