"""The rules of the job and its computation; no interface or storage code."""
