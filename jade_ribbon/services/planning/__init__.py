"""Plan: jobs, the answer, and what stands beside it."""
