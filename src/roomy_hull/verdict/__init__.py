"""The verdict: what all studies found, with the results behind it."""
