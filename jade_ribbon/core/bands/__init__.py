"""The band in a job: its figures, the speed it runs at, what it reaches and wears."""
