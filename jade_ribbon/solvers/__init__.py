"""The constraint solver behind plain data: what is cut from which stock, the run sheet."""
