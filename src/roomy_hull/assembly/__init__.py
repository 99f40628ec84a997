"""The job expanded once in vehicle axes, shared by all studies and drawings."""
